<!-- A new invoice: of the sale or the order that the address names, or by hand. -->
<script lang="ts">
  import { page } from '$app/state';
  import { isKnown } from '$lib/core/event/todays-event';
  import type { Row } from '$lib/core/books/tables';
  import { byRecord, people } from '$lib/core/customer/joined';
  import { asked } from '$lib/device/asked.svelte';
  import { live } from '$lib/device/live.svelte';
  import { oneOrder } from '$lib/device/orders';
  import { askSale, ownSale } from '$lib/device/sale-document';
  import { useStall } from '../../stall.svelte';
  import NotHeaded from '../NotHeaded.svelte';
  import InvoiceForm from '../InvoiceForm.svelte';

  const stall = useStall();
  const { db } = stall;
  const saleId = $derived(page.url.searchParams.get('sale') ?? '');
  const orderId = $derived(page.url.searchParams.get('order') ?? '');
  const wanted = $derived(page.url.searchParams.get('customer') ?? undefined);
  const found = live(() => {
    const [sale, order, today] = [saleId, orderId, stall.today];
    return async () => {
      const [own, now, customers, taxes, goods, invoices] = await Promise.all([
        sale === '' ? null : ownSale(db, sale),
        order === '' ? undefined : oneOrder(db, order, today),
        db.books.customers.toArray(),
        db.books.taxes.toArray(),
        db.books.items.toArray(),
        db.books.invoices.toArray(),
      ]);
      const source = invoices.filter((each) => each.source === (sale || order));
      const ids = new Set(source.map(({ id }) => id));
      return {
        ...{ own, now, customers, taxes },
        goods: goods.filter(({ isActive }) => isActive),
        before: invoices.filter(({ id, credits }) => ids.has(id) || ids.has(credits ?? '')),
        countries: new Map(
          invoices
            .toSorted((a, b) => (a.at < b.at ? -1 : 1))
            .flatMap(({ customer, buyer }) => (buyer === null ? [] : [[customer, buyer.country]])),
        ),
      };
    };
  }, undefined);
  /** A sale that is long past is asked of the server. */
  const asks = asked<Awaited<ReturnType<typeof askSale>> | null>(() => {
    const id = saleId;
    if (id === '' || !found.isRead || found.value?.own != null) return null;
    return { of: id, ask: () => askSale(stall.transport, id) };
  }, null);
  const sale = $derived(
    found.value?.own ?? (asks.value?.is === 'there' ? asks.value.found : undefined),
  );
  const order = $derived(found.value?.now);
  const whose = $derived(sale?.sale.customer ?? order?.order.customer ?? null);
  const customers = $derived.by(() => {
    const all = found.value?.customers ?? [];
    const isThere = (each: Row<'customers'>): boolean => isKnown(each) && !each.isErased;
    if (whose === null) return people(all).filter((each) => isThere(each) && each.isActive);
    // What it is of is that record's; whom it is to is as the person is known now.
    const person = byRecord(all).get(whose);
    return person === undefined || !isThere(person) ? [] : [{ ...person, id: whose }];
  });
  const isReady = $derived(
    found.value !== undefined &&
      (saleId === '' || sale !== undefined) &&
      (orderId === '' || order !== undefined),
  );
</script>

<div class="page page-text gap-5">
  <h1>
    Invoice{sale === undefined ? '' : ` of sale ${sale.sale.number}`}{order === undefined
      ? ''
      : ` of order ${order.order.number}`}
  </h1>
  {#if stall.business.invoicing === null}
    <NotHeaded />
  {:else if isReady && found.value !== undefined}
    {#if customers.length === 0}
      <p class="sheet">
        There is nobody to send it to. <a class="plain" href="/customers/new">Add a customer</a>
      </p>
    {:else}
      {#key `${saleId} ${orderId} ${wanted ?? ''}`}
        <InvoiceForm
          {customers}
          {sale}
          {order}
          taxes={found.value.taxes}
          goods={found.value.goods}
          before={found.value.before}
          countries={found.value.countries}
          customer={wanted ?? (whose === null ? undefined : whose)}
        />
      {/key}
    {/if}
  {:else if asks.value !== null && asks.value.is !== 'there'}
    <p class="sheet">That sale is not on this device, and the server did not give it.</p>
  {:else if found.isRead && orderId !== '' && order === undefined}
    <p class="sheet">This device knows no such order.</p>
  {/if}
</div>
