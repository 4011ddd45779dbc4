<script lang="ts">
  import { toast } from 'svelte-sonner';
  import { draft } from '$lib/core/daybook/kinds';
  import { newId } from '$lib/device/new-id';
  import LendRight from '../LendRight.svelte';
  import { useStall } from '../stall.svelte';

  const stall = useStall();
  const CHOICES = [0, 1, 2, 5, 15, 30, 60];
  let wanted = $state<number | null>(null);
  const shown = $derived(wanted ?? stall.business.lockAfter);
  const choices = $derived(
    [...new Set([...CHOICES, stall.business.lockAfter])].sort((a, b) => a - b),
  );

  async function keep(minutes: number, lentBy?: string): Promise<void> {
    if (lentBy === undefined && !stall.may('set-up')) {
      wanted = minutes;
      return;
    }
    wanted = null;
    const body = { lockAfter: minutes };
    await stall.daybook.append(
      () => ({ ok: true, drafts: [draft('business.lock', newId(), null, body)] }),
      lentBy === undefined ? {} : { lentBy },
    );
    toast('Saved. Other devices follow when they next sync.');
  }
</script>

<label class="grid gap-1 font-[560]">
  Ask again who is there when nobody has touched the device
  <select
    class="select min-h-12"
    value={shown}
    onchange={({ currentTarget }) => keep(Number(currentTarget.value))}
  >
    {#each choices as minutes (minutes)}
      <option value={minutes}
        >{minutes === 0
          ? 'never'
          : minutes === 1
            ? 'for a minute'
            : `for ${minutes} minutes`}</option
      >
    {/each}
  </select>
</label>
{#if wanted !== null}
  {@const minutes = wanted}
  <LendRight
    right="set-up"
    onLent={(lender) => keep(minutes, lender)}
    onBack={() => (wanted = null)}
  />
{/if}
