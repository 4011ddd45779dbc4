<script lang="ts">
  import { page } from '$app/state';
  import { quantityWords } from '$lib/ui/words/money-words';
  import { Goods, stockAt } from '../../goods.svelte';
  import PlaceForm from './PlaceForm.svelte';

  const goods = new Goods();
  const id = $derived(page.params['id'] ?? 'new');
  const stock = stockAt(goods.stall, () => id);
  const there = $derived(
    [...stock.value]
      .filter(([, quantity]) => quantity !== 0)
      .map(([item, quantity]) => ({ item, quantity }))
      .toSorted((a, b) => (goods.nameOf(a.item) < goods.nameOf(b.item) ? -1 : 1)),
  );
  const place = $derived(goods.places.find((each) => each.id === id));
</script>

<div class="page page-text gap-5">
  {#if !goods.isRead}<span></span>
  {:else if id === 'new'}
    <h1>Add a place</h1>
    <PlaceForm {goods} />
  {:else if place === undefined}
    <h1>No such place</h1>
    <p class="sheet">
      This device knows none of that kind. <a class="plain" href="/stock/places">Places</a>
    </p>
  {:else}
    <h1>{goods.placeName(place.id)}</h1>
    <div class="flex flex-wrap gap-2">
      <a class="btn btn-quiet" href="/stock/counts/new?place={place.id}">Count it</a>
      <a class="btn btn-quiet" href="/stock/lists/new?use=transfer&from={place.id}"
        >Send goods from it</a
      >
    </div>
    {#key place.setStamp}<PlaceForm {goods} {place} />{/key}
    <section class="sheet" aria-labelledby="there">
      <h2 id="there" class="mb-2">What is there</h2>
      <ul class="grid gap-1" data-testid="there">
        {#each there as { item, quantity } (item)}
          <li class="flex min-h-10 flex-wrap items-center justify-between gap-x-4">
            <a class="plain" href="/stock/items/{item}">{goods.nameOf(item)}</a>
            <span class="figure">{quantityWords(quantity, goods.unitOf(item))}</span>
          </li>
        {:else}
          <li class="soft">Nothing.</li>
        {/each}
      </ul>
    </section>
  {/if}
</div>
