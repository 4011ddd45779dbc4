<script lang="ts">
  /** A line of the report that no payment was found for: joined to one by hand, or none of ours. */
  import type { Settling } from '$lib/core/settle/settling';
  import type { OddLine } from '$lib/core/settle/cards';
  import { joinLine } from '$lib/core/settle/settle-event';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { settleEventWords, type SettleNames } from '$lib/ui/words/settle-words';
  import RightButton from '../../../RightButton.svelte';
  import { useSettling } from './settling.svelte';

  interface Props {
    odd: OddLine;
    missing: Settling['cards']['missing'];
    names: SettleNames;
  }
  const { odd, missing, names }: Props = $props();
  const asked = useSettling();
  const NONE = '';
  let isOpen = $state(false);
  let chosen = $state(NONE);
  let why = $state('');
  let wrong = $state('');
  // Those that it is like first, then whatever else the report does not have.
  const payments = $derived(
    missing.toSorted(
      (a, b) =>
        Number(odd.candidates.includes(b.payment)) - Number(odd.candidates.includes(a.payment)),
    ),
  );

  async function join(lentBy?: string): Promise<void> {
    const [payment, said] = [chosen === NONE ? null : chosen, why];
    wrong = await asked.write(
      () => joinLine(newId, odd.line, payment, said),
      settleEventWords,
      lentBy,
    );
  }
</script>

{#if isOpen}
  <label class="grid gap-1 font-[560]">
    It is
    <select class="select min-h-12 w-full" bind:value={chosen}>
      <option value={NONE}>none of ours</option>
      {#each payments as { payment, amount, last4, at } (payment)}
        <option value={payment}
          >{names.money.text(amount)} ending {last4}, {names.moment(at)}</option
        >
      {/each}
    </select>
  </label>
  <Field label="How that is known" bind:value={why} maxlength={500} says={wrong} />
  <div class="flex flex-wrap gap-2">
    <RightButton right="event.settle" label="So it is" look="btn-quiet" onGo={join} />
    <button type="button" class="btn btn-quiet" onclick={() => (isOpen = false)}>Not now</button>
  </div>
{:else}
  <button type="button" class="btn btn-quiet justify-self-start" onclick={() => (isOpen = true)}
    >Join it by hand …</button
  >
{/if}
