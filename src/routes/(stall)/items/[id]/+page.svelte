<script lang="ts">
  import { page } from '$app/state';
  import { typedFrom, typedToBegin } from '$lib/core/goods/typed-item';
  import { live } from '$lib/device/live.svelte';
  import { useStall } from '../../stall.svelte';
  import ItemForm from './ItemForm.svelte';

  const stall = useStall();
  const { db } = stall;
  const id = $derived(page.params['id'] ?? 'new');
  const all = live(() => () => db.books.items.toArray(), []);
  const categories = live(() => () => db.books.categories.toArray(), []);
  const found = $derived(all.value.find((each) => each.id === id));
  /** A variant is set up with the item that it is one of. */
  const item = $derived(
    found?.variantOf == null ? found : all.value.find((each) => each.id === found.variantOf),
  );
  const barcode = $derived(page.url.searchParams.get('barcode') ?? '');
</script>

<div class="page page-wide gap-5">
  {#if !all.isRead || !categories.isRead}
    <span></span>
  {:else if id === 'new'}
    <h1>Add an item</h1>
    <ItemForm
      typed={typedToBegin(
        stall.taxes.slice(0, 1).map((tax) => tax.id),
        barcode,
      )}
      items={all.value}
      categories={categories.value}
    />
  {:else if item === undefined}
    <h1>No such item</h1>
    <p class="sheet">
      This device knows none of that kind. <a class="plain" href="/items">Goods</a>
    </p>
  {:else}
    <h1>{item.name}</h1>
    {#key item.setStamp}
      <ItemForm
        {item}
        typed={typedFrom(item, all.value, categories.value, stall.business.currency)}
        items={all.value}
        categories={categories.value}
      />
    {/key}
  {/if}
</div>
