<script lang="ts">
  import { sortWords } from '$lib/ui/words/stock-words';
  import { saveFile } from '$lib/ui/files/save-file';
  import { goto } from '$app/navigation';
  import { placeByCode } from '$lib/core/stock/places';
  import { Goods } from '../goods.svelte';
  import GoodsLine from '../GoodsLine.svelte';

  const goods = new Goods();
  const active = $derived(goods.places.filter(({ isActive }) => isActive));
  const away = $derived(goods.places.filter(({ isActive }) => !isActive));
  const coded = $derived(active.filter(({ code }) => code !== ''));
  const depth = (within: string | null): number => {
    let deep = 0;
    for (let at = within; at !== null && deep < 5; deep += 1)
      at = goods.places.find(({ id }) => id === at)?.within ?? null;
    return deep;
  };
  async function labels(): Promise<void> {
    const { labelSheet } = await import('$lib/device/paper/label-sheet');
    const bytes = await labelSheet(
      coded.map((place) => ({ code: place.code, name: goods.placePath(place), detail: '' })),
    );
    saveFile('labels-of-places.pdf', 'application/pdf', bytes);
  }
</script>

<div class="page page-text gap-5">
  <div class="flex flex-wrap items-center justify-between gap-3">
    <h1>Places</h1>
    <div class="flex flex-wrap gap-2">
      {#if coded.length > 0}
        <button type="button" class="btn btn-quiet" onclick={labels}>Labels to print</button>
      {/if}
      <a class="btn btn-main px-6" href="/stock/places/new">Add a place</a>
    </div>
  </div>
  <GoodsLine
    label="Scan the label of a place, or of goods"
    items={goods.stocked}
    onGoods={async (item) => {
      await goto(`/stock/items/${item.id}`);
      return '';
    }}
    does={() => 'Enter opens it'}
    onCode={(code) => {
      const place = placeByCode(code, goods.places);
      if (place !== undefined) void goto(`/stock/places/${place.id}`);
      return place !== undefined;
    }}
  />
  <p class="soft">Where goods can be, beside the events: the base, a van, a store, a shelf.</p>
  <ul class="sheet grid gap-1" data-testid="places">
    {#each active as place (place.id)}
      <li style:padding-left="{depth(place.within) * 1.5}rem">
        <a
          class="hover:bg-base-200 flex min-h-14 flex-wrap items-center justify-between gap-x-4 rounded-lg px-3"
          href="/stock/places/{place.id}"
        >
          <span
            ><b class="font-[600]">{goods.placeName(place.id)}</b>
            <span class="soft">{place.sort === 'area' ? 'area' : sortWords[place.sort]}</span></span
          >
          <span class="soft code text-sm">{place.code}</span>
        </a>
      </li>
    {/each}
  </ul>
  {#if away.length > 0}
    <details>
      <summary class="min-h-12 cursor-pointer py-3">{away.length} put away</summary>
      <ul class="sheet grid gap-1">
        {#each away as place (place.id)}
          <li>
            <a class="plain block min-h-12 px-3 py-3" href="/stock/places/{place.id}"
              >{goods.placeName(place.id)}</a
            >
          </li>
        {/each}
      </ul>
    </details>
  {/if}
</div>
