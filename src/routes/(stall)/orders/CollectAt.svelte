<!-- At which event an order is collected: those that are not over, and the one that was said before. -->
<script lang="ts">
  import { lastDay } from '$lib/core/event/todays-event';
  import { useStall } from '../stall.svelte';

  interface Props {
    /** The event's id; empty for any. */
    value: string;
  }
  let { value = $bindable() }: Props = $props();
  const stall = useStall();
  const events = $derived(
    stall.events.filter((event) => lastDay(event) >= stall.today || event.id === value),
  );
</script>

<label class="grid gap-1 font-[560]">
  They collect it at
  <select class="select min-h-12 w-full" bind:value>
    <option value="">any event</option>
    {#each events as { id, name, days } (id)}
      <option value={id}>{name}, {days[0]?.date ?? ''}</option>
    {/each}
  </select>
</label>
