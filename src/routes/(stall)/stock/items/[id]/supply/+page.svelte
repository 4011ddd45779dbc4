<script lang="ts">
  import { page } from '$app/state';
  import { Goods } from '../../../goods.svelte';
  import { itemName } from '$lib/core/goods/item-name';
  import SupplyForm from './SupplyForm.svelte';

  const goods = new Goods();
  const item = $derived(goods.items.get(page.params['id'] ?? ''));
</script>

<div class="page page-text gap-5">
  {#if !goods.isRead}<span></span>
  {:else if item === undefined}
    <h1>No such item</h1>
    <p class="sheet">
      This device knows none of that kind. <a class="plain" href="/stock">Stock</a>
    </p>
  {:else}
    <h1>{itemName(item)}</h1>
    {#key `${item.id} ${goods.supplies.get(item.id)?.setStamp ?? ''}`}
      <SupplyForm {goods} {item} />
    {/key}
  {/if}
</div>
