<script lang="ts">
  import type { Column } from '$lib/core/list/list-view';
  import { sum } from '$lib/core/money/units';
  import { isOpen, type OrderNow } from '$lib/core/order/order-state';
  import { namedOrders, NO_ORDERS } from '$lib/device/orders';
  import { live } from '$lib/device/live.svelte';
  import List from '$lib/ui/list/List.svelte';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { SORT_WORDS, standsOf } from '$lib/ui/words/order-words';
  import { useStall } from '../stall.svelte';
  import OrdersIn from './OrdersIn.svelte';

  const stall = useStall();
  const { db } = stall;
  const money = $derived(stall.money);
  const { locale } = $derived(stall.business);
  let isAll = $state(false);
  const found = live(() => {
    const { today } = stall;
    return () => namedOrders(db, today);
  }, NO_ORDERS);
  const shown = $derived(isAll ? found.value.orders : found.value.orders.filter(isOpen));
  /** Owed on all deposits, also of orders that are over. */
  const advance = $derived(sum(found.value.orders.map(({ deposit }) => deposit)));
  const nameOf = ({ order }: OrderNow): string => found.value.names.get(order.customer) ?? '';
  const eventOf = ({ order }: OrderNow): string =>
    stall.events.find(({ id }) => id === order.collectAt)?.short ?? '';
  const columns = $derived<readonly Column<OrderNow>[]>([
    { key: 'number', head: 'Number', is: 'text', value: ({ order }) => order.number },
    { key: 'customer', head: 'For', is: 'text', value: nameOf },
    { key: 'sort', head: 'What', is: 'text', value: ({ order }) => SORT_WORDS[order.sort] },
    { key: 'stands', head: 'Stands', is: 'text', value: standsOf },
    { key: 'where', head: 'Collected at', is: 'text', value: eventOf },
    {
      ...{ key: 'until', head: 'Until', is: 'text' },
      value: ({ order }) => (order.until === '' ? null : order.until),
      show: ({ order }) => (order.until === '' ? '' : shortDayWords(order.until, locale)),
    },
    {
      ...{ key: 'total', head: 'Comes to', is: 'figure' },
      value: ({ total }) => total,
      show: ({ total }) => money.figure(total),
    },
    {
      ...{ key: 'due', head: 'To pay', is: 'figure' },
      value: ({ due }) => due,
      show: ({ due }) => money.figure(due),
    },
  ]);
</script>

<div class="page gap-5">
  <h1>For customers</h1>
  <div class="flex flex-wrap items-center gap-2" role="group" aria-label="Which">
    {#each [[false, 'Open'], [true, 'All']] as const as [each, name] (name)}
      <button
        type="button"
        class={['btn btn-quiet', isAll === each && '!border-primary !border-3']}
        aria-pressed={isAll === each}
        onclick={() => (isAll = each)}>{name}</button
      >
    {/each}
  </div>
  {#if advance > 0}
    <p class="text-lg">
      Paid in advance, together: <b class="amount" data-testid="advance">{money.text(advance)}</b>
    </p>
  {/if}
  <section class="sheet" aria-label="Quotes, goods that are kept, orders to collect">
    <List
      name="Orders of customers"
      testid="orders"
      rows={shown}
      {columns}
      keyOf={({ order }) => order.id}
      order={{ column: 'until', isDown: false }}
      wide={['sort', 'where', 'until', 'total']}
      empty={found.value.orders.length === 0
        ? 'Nothing has been quoted or kept for anybody. At the counter, More … writes down what is on the slip.'
        : 'No order fits.'}
      find="Number, customer, how it stands"
    >
      {#snippet first(row)}
        <a class="plain" href="/orders/{row.order.id}">{row.order.number}</a>
      {/snippet}
    </List>
  </section>
  <OrdersIn />
</div>
