<script lang="ts">
  /** Money has come to the bank: how much of what was owed, and when. */
  import { moneyCame, type MoneyCame } from '$lib/core/settle/settle-event';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { settleEventWords } from '$lib/ui/words/settle-words';
  import RightButton from '../../../RightButton.svelte';
  import { useStall } from '../../../stall.svelte';
  import { useSettling } from './settling.svelte';

  interface Props {
    event: string;
    /** What is still to come that it would come of, minor units. */
    from: MoneyCame['from'];
    what: string;
    /** What is expected to come after fees, minor units. */
    expected: number;
  }
  const { event, from, what, expected }: Props = $props();
  const owed = $derived(from.reduce((sum, { amount }) => sum + amount, 0));
  const stall = useStall();
  const asked = useSettling();
  let isOpen = $state(false);
  // svelte-ignore state_referenced_locally
  let typed = $state(stall.money.plain(expected));
  let day = $state(stall.today);
  let wrong = $state('');

  async function note(lentBy?: string): Promise<void> {
    const command = { newId, event, typed, currency: stall.business.currency, day, what };
    const owing = from;
    wrong = await asked.write(
      () => moneyCame({ ...command, from: owing }),
      settleEventWords,
      lentBy,
    );
  }
</script>

{#if isOpen}
  <div class="grid items-start gap-3 sm:grid-cols-2">
    <Field label="What came" bind:value={typed} inputmode="decimal" says={wrong} />
    <label class="grid gap-1 font-[560]">
      On the bank’s day
      <input type="date" class="input w-full" bind:value={day} />
    </label>
  </div>
  <p class="soft text-sm">What is less than {stall.money.text(owed)} was kept as fees.</p>
  <div class="flex flex-wrap gap-2">
    <RightButton right="event.settle" label="It has come" look="btn-quiet" onGo={note} />
    <button type="button" class="btn btn-quiet" onclick={() => (isOpen = false)}>Not yet</button>
  </div>
{:else}
  <button
    type="button"
    class="btn btn-quiet justify-self-start"
    onclick={() => {
      typed = stall.money.plain(expected);
      isOpen = true;
    }}>It has come to the bank …</button
  >
{/if}
