<script lang="ts">
  import { BASE, type Row } from '$lib/core/books/tables';
  import { categoryName } from '$lib/core/goods/categories';
  import type { Column } from '$lib/core/list/list-view';
  import { isLow } from '$lib/core/stock/fill-list';
  import { freeOf, keptKey } from '$lib/core/stock/list-state';
  import { live } from '$lib/device/live.svelte';
  import List from '$lib/ui/list/List.svelte';
  import { quantityWords } from '$lib/ui/words/money-words';
  import { useStall } from '../stall.svelte';
  import { Goods } from './goods.svelte';
  import { itemName } from '$lib/core/goods/item-name';

  const stall = useStall();
  const { books } = stall.db;
  const goods = new Goods(stall);
  const categories = live(() => () => books.categories.toArray(), []);
  const makers = live(() => () => books.makers.toArray(), []);
  /** The most of all rows: they are read once the goods are on the screen. */
  const stock = live<Row<'stock'>[] | null>(() => {
    const isTurn = goods.isNamed;
    return () => (isTurn ? books.stock.toArray() : null);
  }, null);
  /** Until then no figure is shown, and none is in a file. */
  const isCounted = $derived(stock.value !== null && goods.isRead);
  type Item = Row<'items'>;

  /** What stands in columns of their own: here, the base, and the places of one's own that are in use. */
  const columnsOf = $derived.by(() => {
    const own = goods.places.filter(({ isActive, sort }) => isActive && sort !== 'area');
    const here = stall.event === undefined ? [] : [stall.event.id];
    return [...here, ...own.map(({ id }) => id)];
  });
  /** By item: how much at each place. */
  const byItem = $derived.by(() => {
    const found = new Map<string, Map<string, number>>();
    for (const { place, item, quantity } of stock.value ?? []) {
      if (quantity === 0 || place.startsWith('gone:') || place === 'suppliers') continue;
      const of = found.get(item) ?? new Map<string, number>();
      of.set(place, quantity);
      found.set(item, of);
    }
    return found;
  });
  /** Areas count with the place they are in. */
  const homes = $derived.by(() => {
    const within = new Map(goods.places.map(({ id, within: of }) => [id, of]));
    const home = (place: string): string => {
      let at = place;
      for (let steps = 0; steps < 9; steps += 1) at = within.get(at) ?? at;
      return at;
    };
    return new Map(goods.places.map(({ id }) => [id, home(id)]));
  });
  const at = (item: string, place: string): number => {
    let sum = 0;
    for (const [each, quantity] of byItem.get(item) ?? [])
      if ((homes.get(each) ?? each) === place) sum += quantity;
    return sum;
  };
  const onHand = (item: string): number => {
    let sum = 0;
    for (const quantity of byItem.get(item)?.values() ?? []) sum += quantity;
    return sum;
  };
  const kept = $derived.by(() => {
    const found = new Map<string, { reserved: number; onOrder: number }>();
    for (const [key, { reserved, onOrder }] of goods.kept) {
      const item = key.slice(key.indexOf(' ') + 1);
      const so = found.get(item) ?? { reserved: 0, onOrder: 0 };
      found.set(item, {
        reserved: so.reserved + reserved,
        onOrder: so.onOrder + onOrder,
      });
    }
    return found;
  });
  const free = (item: string): number => onHand(item) - (kept.get(item)?.reserved ?? 0);
  const isLowSomewhere = ({ id, reorder }: Item): boolean =>
    reorder.some(({ place, level }) => {
      const keptThere = goods.kept.get(keptKey(place, id));
      return isLow(level, freeOf(at(id, place), keptThere) + (keptThere?.onOrder ?? 0));
    });
  const isBelow = ({ id }: Item): boolean =>
    [...(byItem.get(id)?.values() ?? [])].some((quantity) => quantity < 0);

  type Only = 'all' | 'low' | 'below' | 'here';
  let only = $state<Only>('all');
  let category = $state('');
  let maker = $state('');
  let supplier = $state('');
  /** On a phone the finer filters open on a tap. */
  let isMore = $state(false);
  const shown = $derived(
    goods.stocked.filter(
      (item) =>
        (only === 'all' ||
          !isCounted ||
          (only === 'low' && isLowSomewhere(item)) ||
          (only === 'below' && isBelow(item)) ||
          (only === 'here' && at(item.id, stall.event?.id ?? BASE) !== 0)) &&
        (category === '' || item.category === category) &&
        (maker === '' || item.maker === maker) &&
        (supplier === '' ||
          goods.supplies.get(item.id)?.suppliers.some((each) => each.supplier === supplier) ===
            true),
    ),
  );
  const usedCategories = $derived(
    [...new Set(goods.stocked.map((item) => item.category))].filter((each) => each !== '').sort(),
  );
  /** Thousandths, as they are counted; a file has whole units with decimals. */
  const units = (quantity: number): number => quantity / 1000;
  const figure = (key: string, head: string, of: (item: string) => number): Column<Item> => ({
    key,
    head,
    is: 'figure',
    value: ({ id }) => (isCounted ? units(of(id)) : null),
    show: ({ id, unit }) => {
      if (!isCounted) return '…';
      const much = of(id);
      return much === 0 && key !== 'free' ? '–' : quantityWords(much, unit);
    },
  });
  const columns = $derived<readonly Column<Item>[]>([
    { key: 'name', head: 'Item', is: 'text', value: itemName },
    { key: 'code', head: 'Code', is: 'text', value: ({ code }) => code },
    ...columnsOf.map((place) => figure(place, goods.placeName(place), (item) => at(item, place))),
    figure('on hand', 'On hand', onHand),
    figure('reserved', 'Reserved', (item) => kept.get(item)?.reserved ?? 0),
    figure('on order', 'On order', (item) => kept.get(item)?.onOrder ?? 0),
    figure('free', 'Free', free),
  ]);
  /** On a phone: the item, what is at hand where one stands, and what is free. */
  const wide = $derived(
    columns
      .map(({ key }) => key)
      .filter((key) => !['name', 'free', columnsOf[0] ?? ''].includes(key)),
  );
  const looks = (item: Item, column: string): string => {
    if (column === 'code') return 'code soft';
    if (column === 'free') return isLowSomewhere(item) ? 'text-error font-[650]' : 'font-[600]';
    return columnsOf.includes(column) && at(item.id, column) < 0 ? 'text-error font-[650]' : '';
  };
  const onlys = [
    ['all', 'Everything'],
    ['here', 'Here'],
    ['low', 'Low'],
    ['below', 'Below nothing'],
  ] as const;
</script>

<div class="page gap-5">
  <div class="flex flex-wrap items-center justify-between gap-3">
    <h1>Stock</h1>
    <nav class="flex flex-wrap gap-2 max-sm:[&>a]:px-3" aria-label="Of stock">
      <a class="btn btn-quiet px-4" href="/stock/lists">Lists</a>
      <a class="btn btn-quiet px-4" href="/stock/counts">Counts</a>
      <a class="btn btn-quiet px-4" href="/stock/places">Places</a>
      <a class="btn btn-quiet px-4" href="/stock/suppliers">Suppliers</a>
    </nav>
  </div>
  <div class="flex flex-wrap gap-2" role="group" aria-label="Which goods">
    {#each onlys as [each, name] (each)}
      <button
        type="button"
        class={['btn btn-quiet', only === each && '!border-primary !border-3']}
        aria-pressed={only === each}
        onclick={() => (only = each)}>{name}</button
      >
    {/each}
    <button
      type="button"
      class="btn btn-quiet sm:hidden"
      aria-expanded={isMore}
      onclick={() => (isMore = !isMore)}>Of …</button
    >
    <div class={['flex flex-wrap gap-2', !isMore && 'max-sm:hidden']}>
      {#if usedCategories.length > 1}
        <select class="select min-h-12 w-auto" aria-label="Category" bind:value={category}>
          <option value="">every category</option>
          {#each usedCategories as each (each)}<option value={each}
              >{categoryName(each, categories.value)}</option
            >{/each}
        </select>
      {/if}
      {#if makers.value.length > 0}
        <select class="select min-h-12 w-auto" aria-label="Maker" bind:value={maker}>
          <option value="">every maker</option>
          {#each makers.value as { id, name } (id)}<option value={id}>{name}</option>{/each}
        </select>
      {/if}
      {#if goods.suppliers.length > 0}
        <select class="select min-h-12 w-auto" aria-label="Supplier" bind:value={supplier}>
          <option value="">every supplier</option>
          {#each goods.suppliers as { id, name } (id)}<option value={id}>{name}</option>{/each}
        </select>
      {/if}
    </div>
  </div>
  <section class="sheet">
    {#if goods.isNamed}
      <List
        name="Stock"
        rows={shown}
        {columns}
        keyOf={({ id }) => id}
        order={{ column: 'name', isDown: false }}
        find="Find an item"
        empty="Nothing is called that."
        {wide}
        {looks}
      >
        {#snippet first(item: Item)}
          <a class="plain" href="/stock/items/{item.id}"
            ><b class="font-[600]">{item.name}</b> <span class="soft">{item.detail}</span></a
          >
        {/snippet}
      </List>
    {/if}
  </section>
</div>
