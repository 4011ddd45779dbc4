<script lang="ts">
  import type { Row } from '$lib/core/books/tables';
  import { categoryName } from '$lib/core/goods/categories';
  import { itemName } from '$lib/core/goods/item-name';
  import type { Column } from '$lib/core/list/list-view';
  import { live } from '$lib/device/live.svelte';
  import List from '$lib/ui/list/List.svelte';
  import { useStall } from '../stall.svelte';
  import ItemsAsFile from './ItemsAsFile.svelte';

  type Item = Row<'items'>;
  const stall = useStall();
  const { db } = stall;
  const money = $derived(stall.money);
  const all = live(() => () => db.books.items.toArray(), []);
  const categories = live(() => () => db.books.categories.toArray(), []);
  const goods = $derived(
    all.value.filter(({ variantOf, setStamp }) => variantOf === null && setStamp !== ''),
  );
  const variantCount = $derived.by(() => {
    const counts = new Map<string, number>();
    for (const { variantOf, isActive } of all.value)
      if (variantOf !== null && isActive) counts.set(variantOf, (counts.get(variantOf) ?? 0) + 1);
    return counts;
  });
  const categoryOf = ({ category }: Item): string => categoryName(category, categories.value);
  const priceOf = (item: Item): string =>
    (item.isOpenPrice ? 'open price' : money.text(item.price)) +
    (item.unit === '' ? '' : ` a ${item.unit}`);
  const columns = $derived<readonly Column<Item>[]>([
    { key: 'name', head: 'Item', is: 'text', value: itemName },
    { key: 'code', head: 'Code', is: 'text', value: ({ code }) => code },
    { key: 'category', head: 'Category', is: 'text', value: categoryOf },
    { key: 'barcodes', head: 'Barcodes', is: 'text', value: ({ barcodes }) => barcodes.join(' ') },
    {
      key: 'variants',
      head: 'Variants',
      is: 'figure',
      value: ({ id }) => variantCount.get(id) ?? null,
    },
    {
      key: 'sold',
      head: 'Sold',
      is: 'text',
      value: ({ isActive }) => (isActive ? 'yes' : 'no longer'),
    },
    {
      key: 'price',
      head: 'Price',
      is: 'figure',
      show: priceOf,
      value: ({ isOpenPrice, price }) => (isOpenPrice ? null : price),
    },
  ]);
  const looks = ({ isActive }: Item, column: string): string =>
    [isActive ? '' : 'opacity-70', ['code', 'barcodes'].includes(column) ? 'code soft' : ''].join(
      ' ',
    );
</script>

{#snippet first(item: Item)}
  <a
    class="hover:bg-base-200 -mx-2 grid min-h-12 grid-cols-[auto_minmax(0,1fr)] items-center gap-3 rounded-lg px-2"
    href="/items/{item.id}"
  >
    <span class="size-4 rounded-full" style:background={item.colour}></span>
    <span class="min-w-0"
      ><b>{item.name}</b>{item.detail === '' ? '' : `, ${item.detail}`}
      <span class="soft block truncate text-sm sm:hidden"
        >{[
          categoryOf(item),
          item.code,
          variantCount.has(item.id) ? `${String(variantCount.get(item.id))} variants` : '',
          item.isActive ? '' : 'no longer sold',
        ]
          .filter((part) => part !== '')
          .join(' · ')}</span
      ></span
    >
  </a>
{/snippet}

<div class="page page-wide gap-5">
  <div class="flex flex-wrap items-center justify-between gap-3">
    <h1>Goods</h1>
    <div class="flex flex-wrap gap-2">
      <a class="btn btn-quiet px-5" href="/categories">Categories</a>
      <a class="btn btn-main px-6" href="/items/new">Add an item</a>
    </div>
  </div>
  {#if all.isRead}
    <div class="sheet">
      <List
        name="Goods"
        rows={goods}
        {columns}
        keyOf={({ id }) => id}
        order={{ column: 'name', isDown: false }}
        {first}
        {looks}
        wide={['code', 'category', 'barcodes', 'variants', 'sold']}
        find="Name, code, barcode or category"
        empty={goods.length === 0
          ? 'No goods yet. Add the first, or take them in from a file below.'
          : 'Nothing fits.'}
        testid="items"
      />
    </div>
  {/if}
  <ItemsAsFile items={all.value} />
</div>
