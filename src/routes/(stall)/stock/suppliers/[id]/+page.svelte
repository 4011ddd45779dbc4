<script lang="ts">
  import { page } from '$app/state';
  import { Goods } from '../../goods.svelte';
  import SupplierForm from './SupplierForm.svelte';

  const goods = new Goods();
  const id = $derived(page.params['id'] ?? 'new');
  const supplier = $derived(goods.suppliers.find((each) => each.id === id));
  const theirs = $derived(
    goods.stocked.filter((item) =>
      goods.supplies.get(item.id)?.suppliers.some((each) => each.supplier === id),
    ),
  );
</script>

<div class="page page-text gap-5">
  {#if !goods.isRead}<span></span>
  {:else if id === 'new'}
    <h1>Add a supplier</h1>
    <SupplierForm {goods} />
  {:else if supplier === undefined}
    <h1>No such supplier</h1>
    <p class="sheet">
      This device knows none of that kind. <a class="plain" href="/stock/suppliers">Suppliers</a>
    </p>
  {:else}
    <h1>{supplier.name}</h1>
    <div class="flex flex-wrap gap-2">
      <a class="btn btn-quiet" href="/stock/lists/new?use=order&supplier={id}">Order from them</a>
      <a class="btn btn-quiet" href="/stock/lists/new?use=back&supplier={id}">Send goods back</a>
    </div>
    {#key supplier.setStamp}<SupplierForm {goods} {supplier} />{/key}
    <section class="sheet" aria-labelledby="theirs">
      <h2 id="theirs" class="mb-2">What they sell</h2>
      <ul class="grid gap-1">
        {#each theirs as item (item.id)}
          <li>
            <a class="plain block min-h-10 py-2" href="/stock/items/{item.id}/supply"
              >{goods.nameOf(item.id)}</a
            >
          </li>
        {:else}
          <li class="soft">Nothing is noted yet; say so on the page of an item.</li>
        {/each}
      </ul>
    </section>
  {/if}
</div>
