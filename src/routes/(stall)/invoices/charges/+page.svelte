<!-- All standing charges: who is charged what, how often, when next, and how it is paid. -->
<script lang="ts">
  import type { Column } from '$lib/core/list/list-view';
  import { daysToCome, priceOf } from '$lib/core/charge/set-charge';
  import { openFailures } from '$lib/core/loose-end/charge-ends';
  import { chargesHere, type Charge } from '$lib/device/charges';
  import { live } from '$lib/device/live.svelte';
  import List from '$lib/ui/list/List.svelte';
  import { customerNames } from '$lib/ui/words/customer-words';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { oftenWords } from '$lib/ui/words/charge-words';
  import { useStall } from '../../stall.svelte';
  import NotHeaded from '../NotHeaded.svelte';
  import { InvoicesNow } from '../invoices-now.svelte';

  const stall = useStall();
  const { db } = stall;
  const money = $derived(stall.money);
  const { locale } = $derived(stall.business);
  const found = live(
    () => async () => {
      const [charges, customers, cards] = await Promise.all([
        chargesHere(db),
        db.books.customers.toArray(),
        db.books.chargeCards.toArray(),
      ]);
      return {
        charges,
        failures: openFailures(cards),
        names: customerNames(customers),
      };
    },
    undefined,
  );
  const charges = $derived(found.value?.charges ?? []);
  /** Only where a card failed: it looks at all that was invoiced. */
  const invoices = new InvoicesNow(() =>
    (found.value?.failures.length ?? 0) > 0 ? undefined : null,
  );
  const failed = $derived.by(() => {
    const open = new Set(invoices.all.flatMap(({ invoice, left }) => (left > 0 ? invoice.id : [])));
    const failures = found.value?.failures ?? [];
    return new Set(failures.flatMap(({ invoice, charge }) => (open.has(invoice) ? charge : [])));
  });
  const whatOf = ({ lines }: Charge): string => lines[0]?.name ?? '';
  const nextOf = (charge: Charge): string => daysToCome(charge, 1)[0] ?? '';

  const columns = $derived<readonly Column<Charge>[]>([
    { ...{ key: 'what', head: 'What', is: 'text' }, value: whatOf },
    {
      ...{ key: 'to', head: 'To', is: 'text' },
      value: ({ customer }) => found.value?.names.get(customer) ?? 'somebody',
    },
    {
      ...{ key: 'price', head: 'Each time', is: 'figure' },
      value: priceOf,
      show: (charge) => money.figure(priceOf(charge)),
    },
    { ...{ key: 'often', head: 'How often', is: 'text' }, value: oftenWords },
    {
      ...{ key: 'next', head: 'Next', is: 'text' },
      value: (charge) => nextOf(charge) || null,
      show: (charge) => (nextOf(charge) === '' ? '' : shortDayWords(nextOf(charge), locale)),
    },
    {
      ...{ key: 'stands', head: 'Stands', is: 'text' },
      value: (charge) =>
        failed.has(charge.id)
          ? 'card did not pay'
          : !charge.isActive
            ? 'halted'
            : nextOf(charge) === ''
              ? 'ended'
              : charge.way === null
                ? 'paid when asked'
                : 'card on file',
    },
  ]);
</script>

<div class="page gap-5">
  <h1>Standing charges</h1>
  {#if stall.business.invoicing === null}
    <NotHeaded />
  {:else}
    <div class="flex flex-wrap gap-2">
      <a class="btn btn-main" href="/invoices/charges/new">Set one up</a>
      <a class="btn btn-quiet" href="/invoices">Invoices</a>
    </div>
  {/if}
  {#if charges.length > 0}
    <div class="sheet">
      <List
        name="Standing charges"
        testid="charges"
        rows={charges}
        {columns}
        keyOf={({ id }) => id}
        order={{ column: 'next', isDown: false }}
        wide={['often', 'next']}
        empty="None fits."
        find="What, customer, how it stands"
        looks={(charge, column) =>
          column === 'stands' && failed.has(charge.id) ? 'text-error font-[600]' : ''}
      >
        {#snippet first(charge)}
          <a class="plain" href="/invoices/charges/{charge.id}">{whatOf(charge)}</a>
        {/snippet}
      </List>
    </div>
  {:else if found.isRead && stall.business.invoicing !== null}
    <p>
      None yet. One is an amount that a customer is charged again and again: the server makes an
      invoice of it on each of its days, whether a device is on or not.
    </p>
  {/if}
</div>
