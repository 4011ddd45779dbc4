<script lang="ts">
  /** What has come of something, as somebody noted or a statement says; and that it was not so. */
  import { undoMoney } from '$lib/core/bank/join-bank';
  import type { Settling } from '$lib/core/settle/settling';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { bankRefusalWords } from '$lib/ui/words/bank-words';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import RightButton from '../../../RightButton.svelte';
  import { useStall } from '../../../stall.svelte';
  import { useSettling } from './settling.svelte';

  interface Props {
    event: string;
    /** What came that had been owed by this account. */
    came: Settling['came'];
    account: string;
  }
  const { event, came, account }: Props = $props();
  const stall = useStall();
  const asked = useSettling();
  const money = $derived(stall.money);
  let asking = $state('');
  let why = $state('');
  let wrong = $state('');
  const own = $derived(
    came.flatMap((each) => {
      const amount = each.from.reduce(
        (sum, from) => sum + (from.account === account ? from.amount : 0),
        0,
      );
      return amount === 0 ? [] : [{ ...each, part: amount }];
    }),
  );

  async function undo(each: Settling['came'][number], lentBy?: string): Promise<void> {
    const { id, amount, fees, from } = each;
    const [said, of] = [why, { is: 'came' as const, id, event, amount, fees, from }];
    wrong = await asked.write(() => undoMoney(newId, of, said), bankRefusalWords, lentBy);
    if (wrong === '') asking = '';
  }
</script>

{#if own.length > 0}
  <ul class="grid gap-1 text-sm" data-testid="came">
    {#each own as each (each.id)}
      <li class="grid gap-1">
        <span class="flex flex-wrap items-center justify-between gap-2">
          <span class="min-w-0 break-words"
            >{each.what === '' ? 'It' : each.what} came
            <span class="soft"
              >{shortDayWords(each.day, stall.business.locale)}, {stall.nameOf(each.by)}</span
            ></span
          >
          <span class="flex items-center gap-2">
            <span class="figure">{money.figure(each.part)}</span>
            <button
              type="button"
              class="btn btn-quiet"
              onclick={() => {
                asking = each.id;
                why = '';
                wrong = '';
              }}>Undo</button
            >
          </span>
        </span>
        {#if asking === each.id}
          <Field label="Why it is taken back" bind:value={why} maxlength={500} says={wrong} />
          <span class="flex flex-wrap gap-2">
            <RightButton
              right="event.settle"
              label="It did not come"
              look="btn-quiet"
              onGo={(lender) => undo(each, lender)}
            />
            <button type="button" class="btn btn-quiet" onclick={() => (asking = '')}
              >Leave it</button
            >
          </span>
        {/if}
      </li>
    {/each}
  </ul>
{/if}
