<script lang="ts">
  import type { Row } from '$lib/core/books/tables';
  import { hasWords, wordsIn } from '$lib/core/entry-line/words';
  import { categoryName } from '$lib/core/goods/categories';
  import { live } from '$lib/device/live.svelte';
  import { useStall } from '../stall.svelte';
  import ItemsAsFile from './ItemsAsFile.svelte';

  const stall = useStall();
  const { db } = stall;
  const money = $derived(stall.money);
  const AT_FIRST = 100;
  let typed = $state('');
  let most = $state(AT_FIRST);
  const all = live(() => () => db.books.items.toArray(), []);
  const categories = live(() => () => db.books.categories.toArray(), []);
  const nameOf = (category: string): string => categoryName(category, categories.value);
  const byName = (a: Row<'items'>, b: Row<'items'>): number => {
    const [x, y] = [`${a.name} ${a.detail}`.toLowerCase(), `${b.name} ${b.detail}`.toLowerCase()];
    return x === y ? (a.id < b.id ? -1 : 1) : x < y ? -1 : 1;
  };
  const goods = $derived(
    all.value
      .filter(({ variantOf, setStamp }) => variantOf === null && setStamp !== '')
      .sort(byName),
  );
  const variantCount = $derived.by(() => {
    const counts = new Map<string, number>();
    for (const { variantOf, isActive } of all.value)
      if (variantOf !== null && isActive) counts.set(variantOf, (counts.get(variantOf) ?? 0) + 1);
    return counts;
  });
  const found = $derived.by(() => {
    const words = wordsIn(typed);
    return goods.filter(({ name, detail, code, category, barcodes }) =>
      hasWords([name, detail, code, nameOf(category), ...barcodes], words),
    );
  });
</script>

<div class="page page-wide gap-5">
  <div class="flex flex-wrap items-center justify-between gap-3">
    <h1>Goods</h1>
    <div class="flex flex-wrap gap-2">
      <a class="btn btn-quiet px-5" href="/categories">Categories</a>
      <a class="btn btn-main px-6" href="/items/new">Add an item</a>
    </div>
  </div>
  <label class="grid gap-1 font-[560]">
    Name, code, barcode or category
    <input class="input w-full text-lg" bind:value={typed} autocomplete="off" />
  </label>
  <ul class="sheet grid gap-1" data-testid="items">
    {#each found.slice(0, most) as item (item.id)}
      <li>
        <a
          class={[
            'hover:bg-base-200 grid min-h-14 grid-cols-[auto_minmax(0,1fr)_auto] items-center gap-3 rounded-lg px-3',
            !item.isActive && 'opacity-70',
          ]}
          href="/items/{item.id}"
        >
          <span class="size-4 rounded-full" style:background={item.colour}></span>
          <span class="min-w-0"
            ><b>{item.name}</b>{item.detail === '' ? '' : `, ${item.detail}`}
            <span class="soft block truncate text-sm"
              >{[
                nameOf(item.category),
                item.code,
                variantCount.has(item.id) ? `${String(variantCount.get(item.id))} variants` : '',
                item.isActive ? '' : 'no longer sold',
              ]
                .filter((part) => part !== '')
                .join(' · ')}</span
            ></span
          >
          <span class="amount"
            >{item.isOpenPrice ? 'open price' : money.text(item.price)}{item.unit === ''
              ? ''
              : ` a ${item.unit}`}</span
          >
        </a>
      </li>
    {:else}
      {#if all.isRead}
        <li class="soft p-3">
          {typed.trim() === ''
            ? 'No goods yet. Add the first, or take them in from a file below.'
            : `Nothing fits “${typed}”.`}
        </li>
      {/if}
    {/each}
  </ul>
  {#if found.length > most}
    <button type="button" class="btn btn-quiet justify-self-start" onclick={() => (most += 400)}
      >Show more of the {found.length}</button
    >
  {/if}
  <ItemsAsFile items={all.value} />
</div>
