<!-- What a customer owes and has: what is still to pay, and what can be done about it. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import { toast } from 'svelte-sonner';
  import type { Row } from '$lib/core/books/tables';
  import { localTime } from '$lib/core/event/local-time';
  import { moveHeld } from '$lib/core/held/set-held';
  import { documentOf, openItems, type OpenItem } from '$lib/core/held/statement';
  import { dueDays } from '$lib/core/invoice/invoice-state';
  import { asked } from '$lib/device/asked.svelte';
  import { customerHolds, standsOn } from '$lib/device/held-accounts';
  import {
    joinedMoves,
    NONE_OLDER,
    olderMoves,
    ownMoves,
    type OlderMoves,
  } from '$lib/device/held-statement';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { limitWords, setHeldWords } from '$lib/ui/words/held-words';
  import { invoiceNumberWords } from '$lib/ui/words/invoice-words';
  import RightButton from '../../RightButton.svelte';
  import { putPayment } from '../../counter/put-payment';
  import { useStall } from '../../stall.svelte';

  interface Props {
    customer: Row<'customers'>;
    /** The ids of all their records. */
    records: readonly string[];
  }
  const { customer, records }: Props = $props();
  const stall = useStall();
  const { db, slip } = stall;
  const money = $derived(stall.money);
  const { locale, timeZone } = $derived(stall.business);
  const dayOf = (at: string): string => localTime(Date.parse(at), timeZone).day;

  const holds = live(() => {
    const who = customer;
    return () => customerHolds(db, who);
  }, undefined);
  const owed = live(() => {
    const { id } = customer;
    return () => ownMoves(db, [`customer:${id}`]);
  }, undefined);
  const invoices = live(
    () => {
      const all = [...records];
      return () => db.books.invoices.where('customer').anyOf(all).toArray();
    },
    [] as readonly Row<'invoices'>[],
  );
  const older = asked<OlderMoves>(() => {
    const of = `customer:${customer.id}` as const;
    return { of, ask: () => olderMoves(stall.transport, [of]) };
  }, NONE_OLDER);
  const open = $derived(
    owed.value === undefined
      ? []
      : openItems(
          joinedMoves(owed.value.moves, older.value.moves),
          owed.value.balances[0] ?? 0,
          customer.terms,
          localTime(Date.now(), timeZone).day,
          dayOf,
          dueDays(invoices.value),
        ),
  );
  let paid = $state('');
  let wrong = $state('');

  /** Onto the slip at the counter: there it is paid in any way, and has a receipt. */
  function payIn(debt?: OpenItem): void {
    if (!slip.isEmpty) {
      wrong = 'There is a slip at the counter: ring it up or set it aside first.';
      return;
    }
    const { id, name, discount } = customer;
    const owes = holds.value?.owes ?? 0;
    const put = putPayment(stall, { id, name, discount }, paid, owes, debt);
    wrong = 'wrong' in put ? put.wrong : '';
    if (!('wrong' in put)) void goto('/counter');
  }

  /** What they paid too much is kept as their credit. */
  async function keepAsCredit(lentBy?: string): Promise<void> {
    const { id } = customer;
    const made = await stall.daybook.decide(
      () => standsOn(db, `customer:${id}`),
      (balance) =>
        moveHeld({
          ...{ newId, from: `customer:${id}`, to: `credit:${id}`, balance, amount: null },
          reason: 'Paid too much',
        }),
      lentBy === undefined ? {} : { lentBy },
    );
    wrong = made.ok ? '' : setHeldWords(made.refusal, money);
    if (made.ok) toast('It is their credit now.');
  }

  /** Credit pays what is owed, as far as it goes. */
  async function useCredit(lentBy?: string): Promise<void> {
    const { id } = customer;
    const { owes = 0, credit = 0 } = holds.value ?? {};
    const made = await stall.daybook.decide(
      () => standsOn(db, `credit:${id}`),
      (balance) =>
        moveHeld({
          ...{ newId, from: `credit:${id}`, to: `customer:${id}`, balance },
          ...{ amount: Math.min(owes, credit), reason: 'Credit used for what was owed' },
        }),
      lentBy === undefined ? {} : { lentBy },
    );
    wrong = made.ok ? '' : setHeldWords(made.refusal, money);
    if (made.ok) toast(`${money.text(Math.min(owes, credit))} of the credit has paid for it.`);
  }
</script>

<section class="sheet grid gap-4" aria-labelledby="account">
  <div class="flex flex-wrap items-baseline justify-between gap-3">
    <h2 id="account">Account</h2>
    <a class="plain" href="/customers/{customer.id}/statement">Statement</a>
  </div>
  {#if holds.value !== undefined}
    {@const { owes, credit, limit } = holds.value}
    <dl class="grid grid-cols-2 gap-4" data-testid="holds">
      <div>
        <dt class="soft">{owes < 0 ? 'Paid too much' : 'Owes'}</dt>
        <dd class="amount text-3xl">{money.text(Math.abs(owes))}</dd>
        <dd class={limit !== null && owes > limit ? 'text-error' : 'soft'}>
          {limitWords(owes, limit, customer.terms, money)}
        </dd>
      </div>
      <div>
        <dt class="soft">{credit < 0 ? 'Spent more credit than there was' : 'Credit'}</dt>
        <dd class="amount text-3xl">{money.text(Math.abs(credit))}</dd>
      </div>
    </dl>
    {#if open.length > 0}
      <table class="rows" data-testid="open-items">
        <thead
          ><tr
            ><th scope="col">To pay for</th><th scope="col" class="!text-left">Due</th><th
              scope="col">Left</th
            ><th scope="col"><span class="sr-only">Pay one</span></th></tr
          ></thead
        >
        <tbody>
          {#each open as item, n (`${documentOf(item)} ${String(n)}`)}
            {@const { sale, invoice, number, at, amount, left, due, isOverdue } = item}
            <tr>
              <td
                >{#if invoice !== ''}<a class="plain" href="/invoices/{invoice}"
                    >{invoiceNumberWords(number)}</a
                  >{:else if sale === ''}{number === '' && at === ''
                    ? 'what is older'
                    : 'a sale under way'}{:else}<a class="plain" href="/sales/{sale}">{number}</a
                  >{/if}{left === amount ? '' : `, of ${money.text(amount)}`}</td
              >
              <td class={['!text-left', isOverdue && 'text-error font-[600]']}
                >{due === '' ? '' : shortDayWords(due, locale)}{isOverdue && due !== ''
                  ? ', overdue'
                  : ''}</td
              >
              <td class="figure text-right">{money.figure(left)}</td>
              <td class="text-right">
                {#if documentOf(item) !== ''}
                  <button
                    type="button"
                    class="btn btn-quiet !px-3 whitespace-nowrap"
                    aria-label="Pay {number}"
                    onclick={() => payIn(item)}>Pay</button
                  >
                {/if}
              </td>
            </tr>
          {/each}
        </tbody>
      </table>
    {/if}
    <form
      class="flex flex-wrap items-end gap-3"
      aria-label="Pay in"
      onsubmit={(event) => {
        event.preventDefault();
        payIn();
      }}
    >
      <div class="min-w-36 flex-1">
        <Field
          label="They pay in"
          bind:value={paid}
          inputmode="decimal"
          autocomplete="off"
          placeholder={owes > 0 ? money.plain(owes) : ''}
        />
      </div>
      <button class="btn btn-quiet">To the counter</button>
      {#if owes < 0}
        <RightButton
          right="voucher.set"
          look="btn-quiet"
          label={`Keep ${money.text(-owes)} as credit`}
          onGo={keepAsCredit}
        />
      {/if}
      {#if owes > 0 && credit > 0}
        <RightButton
          right="voucher.set"
          look="btn-quiet"
          label={`Use ${money.text(Math.min(owes, credit))} of the credit`}
          onGo={useCredit}
        />
      {/if}
    </form>
    <p class="soft">
      The oldest is paid first, unless one is chosen. What is more than they owe becomes credit.
    </p>
    {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
  {/if}
</section>
