<!-- All invoices and credit notes: what of each is to pay, and for how long it has been due. -->
<script lang="ts">
  import type { Column } from '$lib/core/list/list-view';
  import { byAge, type InvoiceNow } from '$lib/core/invoice/invoice-state';
  import { gapsIn } from '$lib/core/invoice/invoice-number';
  import { sum } from '$lib/core/money/units';
  import { live } from '$lib/device/live.svelte';
  import List from '$lib/ui/list/List.svelte';
  import { wrongOf } from '$lib/ui/words/answer-words';
  import { customerNames } from '$lib/ui/words/customer-words';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { invoiceNumberWords, sortWords, STANDS_WORDS } from '$lib/ui/words/invoice-words';
  import { useStall } from '../stall.svelte';
  import NotHeaded from './NotHeaded.svelte';
  import { InvoicesNow } from './invoices-now.svelte';
  import Remind from './Remind.svelte';

  const stall = useStall();
  const { db } = stall;
  const money = $derived(stall.money);
  const { locale } = $derived(stall.business);
  const now = new InvoicesNow(() => undefined);
  const all = $derived(now.all);
  const here = live(
    () => async () => {
      const [customers, numbers] = await Promise.all([
        db.books.customers.toArray(),
        db.books.invoiceNumbers.toArray(),
      ]);
      return {
        gaps: gapsIn(numbers.filter(({ setStamp }) => setStamp !== '')),
        names: customerNames(customers),
      };
    },
    undefined,
  );
  const ages = $derived(byAge(all, stall.today));
  const toPay = $derived(sum(ages.map(({ amount }) => amount)));
  const nameOf = ({ invoice }: InvoiceNow): string =>
    here.value?.names.get(invoice.customer) ?? 'somebody';

  const columns = $derived<readonly Column<InvoiceNow>[]>([
    {
      ...{ key: 'number', head: 'Number', is: 'text' },
      value: ({ number, invoice }) => number || `~${invoice.issued}`,
      show: ({ number }) => invoiceNumberWords(number),
    },
    { ...{ key: 'to', head: 'To', is: 'text' }, value: nameOf },
    {
      ...{ key: 'day', head: 'Day', is: 'text' },
      value: ({ invoice }) => invoice.issued,
      show: ({ invoice }) => shortDayWords(invoice.issued, locale),
    },
    {
      ...{ key: 'due', head: 'Due', is: 'text' },
      value: ({ invoice }) => (invoice.sort === 'credit' ? null : invoice.due),
      show: ({ invoice }) => (invoice.sort === 'credit' ? '' : shortDayWords(invoice.due, locale)),
    },
    {
      ...{ key: 'total', head: 'In all', is: 'figure' },
      value: ({ invoice }) => invoice.total,
      show: ({ invoice }) =>
        money.figure(invoice.sort === 'credit' ? -invoice.total : invoice.total),
    },
    {
      ...{ key: 'left', head: 'To pay', is: 'figure' },
      value: ({ left }) => left,
      show: ({ left }) => (left === 0 ? '' : money.figure(left)),
    },
    {
      ...{ key: 'stands', head: 'Stands', is: 'text' },
      value: ({ stands, invoice }) =>
        stands === 'credit note' ? sortWords(invoice) : STANDS_WORDS[stands],
    },
  ]);
</script>

<div class="page gap-5">
  <h1>Invoices</h1>
  {#if stall.business.invoicing === null}
    <NotHeaded />
  {:else}
    <div class="flex flex-wrap gap-2">
      <a class="btn btn-main" href="/invoices/new">Write an invoice</a>
      <a class="btn btn-quiet" href="/invoices/charges">Standing charges</a>
      <a class="btn btn-quiet" href="/invoices/heading">How invoices are headed</a>
    </div>
  {/if}
  {#if all.length > 0}
    <section class="sheet grid gap-3" aria-labelledby="ages">
      <h2 id="ages">
        To pay: <span class="amount" data-testid="to-pay">{money.text(toPay)}</span>
      </h2>
      <dl class="grid grid-cols-2 gap-4 sm:grid-cols-5" data-testid="ages">
        {#each ages as { age, amount } (age)}
          <div>
            <dt class="soft">{age === 'not due' ? 'not due yet' : `${age} days`}</dt>
            <dd class={['amount text-xl', age !== 'not due' && amount > 0 && 'text-error']}>
              {money.figure(amount)}
            </dd>
          </div>
        {/each}
      </dl>
      {#if now.away !== null}
        <p class="soft" role="status">
          {wrongOf(
            now.away,
            'No network.',
            'What was paid longer ago than this device knows is not counted.',
          )}
        </p>
      {/if}
      {#if here.value !== undefined && here.value.gaps.length > 0}
        <p class="text-error" role="status">
          No document here has the number {here.value.gaps
            .slice(0, 5)
            .map(({ series, n }) => `${series}${String(n)}`)
            .join(', ')}: the server was set back to an earlier day since it was given, or a device
          has not sent it yet.
        </p>
      {/if}
    </section>
    <Remind {all} />
    <div class="sheet">
      <List
        name="Invoices"
        testid="invoices"
        rows={all}
        {columns}
        keyOf={({ invoice }) => invoice.id}
        order={{ column: 'day', isDown: true }}
        wide={['day', 'due', 'total']}
        empty="None fits."
        find="Number, customer, how it stands"
        looks={({ stands }, column) =>
          stands === 'overdue' && (column === 'stands' || column === 'due')
            ? 'text-error font-[600]'
            : ''}
      >
        {#snippet first(row)}
          <a class="plain" href="/invoices/{row.invoice.id}">{invoiceNumberWords(row.number)}</a>
        {/snippet}
      </List>
    </div>
  {:else if now.isRead && stall.business.invoicing !== null}
    <p>
      None yet. One can be made of a sale or an order, from its page, or be written here by hand.
    </p>
  {/if}
</div>
