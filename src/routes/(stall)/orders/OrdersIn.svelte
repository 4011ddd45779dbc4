<!-- Orders that were made elsewhere, taken in from a file. -->
<script lang="ts">
  import { BASE } from '$lib/core/books/tables';
  import { ordersFromJson, readOrders, ORDER_COLUMNS } from '$lib/core/formats/orders-table';
  import type { Planned } from '$lib/core/formats/goods-table';
  import { readCsv } from '$lib/device/csv';
  import { newId, newSalt } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import TakeFileIn from '../forms/TakeFileIn.svelte';
  import { useStall } from '../stall.svelte';
  import CollectAt from './CollectAt.svelte';

  const stall = useStall();
  const { books } = stall.db;
  let source = $state('');
  let collectAt = $state('');
  let way = $state('');
  const ways = $derived(
    // One that is only used elsewhere is put away at the counter.
    stall.wayRows.filter(({ method }) => method === 'own' || method === 'transfer'),
  );

  async function read(text: string): Promise<readonly Planned[] | string> {
    const from = source.trim().slice(0, 40);
    if (from === '') return 'Say first where the orders were made: the name of the shop will do.';
    const isJson = /^\s*[[{]/.test(text);
    const csv = isJson ? null : readCsv(text, ['order']);
    if (csv !== null && csv.fault !== '') return csv.fault;
    const lines = csv === null ? ordersFromJson(text) : csv.lines;
    if (typeof lines === 'string') return lines;
    const [items, customers, orders, paid] = await Promise.all([
      books.items.toArray(),
      books.customers.toArray(),
      books.orders.toArray(),
      books.ordersPaid.toArray(),
    ]);
    return readOrders(lines, {
      ...{ newId, newSalt, items, customers, orders, paid, source: from, place: BASE },
      ...{ business: stall.identity.business, pricing: stall.business, taxes: stall.taxes },
      locale: stall.business.locale,
      collectAt: collectAt === '' ? null : collectAt,
      way: way === '' ? null : way,
    });
  }
</script>

<details class="sheet">
  <summary class="min-h-12 cursor-pointer content-center text-lg font-[600]"
    >Orders from elsewhere</summary
  >
  <div class="grid gap-3 pt-2">
    <p class="soft">
      A CSV or JSON file with {ORDER_COLUMNS.join(', ')}. What was taken in before is not taken in
      again.
    </p>
    <div class="grid items-end gap-3 md:grid-cols-3">
      <Field
        label="Made at"
        bind:value={source}
        maxlength={40}
        autocomplete="off"
        placeholder="our web shop"
      />
      <CollectAt bind:value={collectAt} />
      <label class="grid gap-1 font-[560]">
        Paid there by
        <select class="select min-h-12 w-full" bind:value={way}>
          <option value="">nothing was paid</option>
          {#each ways as { id, name } (id)}<option value={id}>{name}</option>{/each}
        </select>
      </label>
    </div>
    <TakeFileIn
      label="A file of orders"
      accept=".csv,.json,text/csv,application/json"
      right="voucher.set"
      {read}
      things={['order', 'orders']}
    />
  </div>
</details>
