<script lang="ts">
  import { page } from '$app/state';
  import { Goods } from '../../goods.svelte';
  import PlaceForm from './PlaceForm.svelte';

  const goods = new Goods();
  const id = $derived(page.params['id'] ?? 'new');
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
    {#key place.setStamp}<PlaceForm {goods} {place} />{/key}
  {/if}
</div>
