<script lang="ts">
  /** Wages by hours on duty, commission of what was sold: what was earned, what is paid, paying it out. */
  import type { PaySettled } from '$lib/core/settle/people';
  import { payOut, type PayOut } from '$lib/core/settle/settle-event';
  import { newId } from '$lib/device/new-id';
  import { settleEventWords, type SettleNames } from '$lib/ui/words/settle-words';
  import RightButton from '../../../RightButton.svelte';
  import { useStall } from '../../../stall.svelte';
  import { useSettling } from './settling.svelte';

  interface Props {
    event: string;
    pay: readonly PaySettled[];
    names: SettleNames;
  }
  const { event, pay, names }: Props = $props();
  const stall = useStall();
  const asked = useSettling();
  const money = $derived(stall.money);
  let from = $state<'safe' | 'bank' | 'owner'>('safe');
  let wrong = $state('');

  const FROM = { safe: 'the safe', bank: 'the bank', owner: 'the owner’s pocket' } as const;
  const owedOf = (each: PaySettled) =>
    [
      { for: 'wages' as const, owed: each.wage - each.paidWage },
      { for: 'commission' as const, owed: each.commission - each.paidCommission },
    ].filter(({ owed }) => owed > 0);
  const isOwing = $derived(pay.some((each) => owedOf(each).length > 0));

  async function payTo(
    person: string,
    what: 'wages' | 'commission',
    owed: number,
    lentBy?: string,
  ) {
    const paid: PayOut = {
      ...{ newId, event, for: what, whom: person, from, what },
      ...{ typed: money.plain(owed), currency: money.currency, owed },
    };
    wrong = await asked.write(() => payOut(paid), settleEventWords, lentBy);
  }
</script>

{#if pay.length > 0}
  <section class="sheet grid gap-3" aria-labelledby="pay">
    <h2 id="pay">Wages and commission</h2>
    <table class="rows" data-testid="pay">
      <thead
        ><tr
          ><th scope="col">Who</th><th scope="col">On duty</th><th scope="col">Wage</th><th
            scope="col"
            class="max-sm:hidden">Sold</th
          ><th scope="col">Commission</th><th scope="col">Paid</th></tr
        ></thead
      >
      <tbody>
        {#each pay as each (each.person)}
          <tr>
            <td>{names.person(each.person)}</td>
            <td class="figure"
              >{each.minutes === 0
                ? ''
                : `${Math.floor(each.minutes / 60)} h ${each.minutes % 60} min`}</td
            >
            <td class="figure">{money.figure(each.wage)}</td>
            <td class="figure max-sm:hidden">{money.figure(each.sold)}</td>
            <td class="figure">{money.figure(each.commission)}</td>
            <td class="figure">{money.figure(each.paidWage + each.paidCommission)}</td>
          </tr>
        {/each}
      </tbody>
    </table>
    {#if isOwing}
      <label class="grid max-w-xs gap-1 font-[560]">
        Paid from
        <select class="select min-h-12 w-full" bind:value={from}>
          <option value="safe">the safe</option>
          <option value="bank">the bank</option>
          <option value="owner">the owner’s pocket</option>
        </select>
      </label>
      <div class="flex flex-wrap gap-2">
        {#each pay as each (each.person)}
          {#each owedOf(each) as { for: what, owed } (what)}
            <RightButton
              right="event.settle"
              label="Pay {names.person(each.person)} {money.text(owed)} of {what} from {FROM[from]}"
              look="btn-quiet"
              onGo={(lender) => payTo(each.person, what, owed, lender)}
            />
          {/each}
        {/each}
      </div>
    {/if}
    {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
  </section>
{/if}
