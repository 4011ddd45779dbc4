<script lang="ts">
  import { toast } from 'svelte-sonner';
  import type { Row } from '$lib/core/books/tables';
  import { setEventWays } from '$lib/core/payment/set-way';
  import { allWays, waysOpen } from '$lib/core/payment/ways';
  import { newId } from '$lib/device/new-id';
  import { moved } from '$lib/ui/forms/moved';
  import MoveButtons from '../../MoveButtons.svelte';
  import RightButton from '../../RightButton.svelte';
  import { useStall } from '../../stall.svelte';

  interface Props {
    event: Row<'events'>;
  }
  const { event }: Props = $props();
  const stall = useStall();
  const all = $derived(allWays(stall.wayRows).filter(({ isActive }) => isActive));
  // svelte-ignore state_referenced_locally
  let open = $state.raw<readonly string[]>(waysOpen(stall.wayRows, event).map(({ id }) => id));
  const now = $derived(waysOpen(stall.wayRows, event).map(({ id }) => id));
  const isChanged = $derived(open.join(' ') !== now.join(' '));
  const isAsUsual = $derived(open.join(' ') === all.map(({ id }) => id).join(' '));
  const closed = $derived(all.filter(({ id }) => !open.includes(id)));
  const nameOf = (id: string): string => all.find((way) => way.id === id)?.name ?? '';

  async function save(lentBy?: string): Promise<void> {
    const ways = isAsUsual ? null : open;
    await stall.daybook.append(
      () => setEventWays(newId, event, ways),
      lentBy === undefined ? {} : { lentBy },
    );
    await stall.daybook.settle();
    toast(`${event.short} takes these from now on.`);
  }
</script>

<section class="sheet grid content-start gap-3" aria-labelledby="event-ways">
  <h2 id="event-ways">Ways to pay here</h2>
  <ul class="grid gap-1">
    {#each open as id, at (id)}
      <li class="flex flex-wrap items-center gap-2">
        <label class="flex min-h-12 min-w-0 flex-1 items-center gap-3">
          <input
            type="checkbox"
            class="checkbox size-6 !rounded-md"
            checked
            disabled={open.length === 1}
            onchange={() => (open = open.filter((each) => each !== id))}
          />
          {nameOf(id)}
        </label>
        <MoveButtons
          name={nameOf(id)}
          {at}
          count={open.length}
          onmove={(to) => (open = moved(open, at, to))}
        />
      </li>
    {/each}
    {#each closed as way (way.id)}
      <li>
        <label class="soft flex min-h-12 items-center gap-3">
          <input
            type="checkbox"
            class="checkbox size-6 !rounded-md"
            onchange={() => (open = [...open, way.id])}
          />
          {way.name}, not here
        </label>
      </li>
    {/each}
  </ul>
  {#if isChanged}<RightButton right="event.plan" label="Save" onGo={save} />{/if}
</section>
