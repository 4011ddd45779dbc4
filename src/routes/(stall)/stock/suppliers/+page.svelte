<script lang="ts">
  import { Goods } from '../goods.svelte';

  const goods = new Goods();
  const active = $derived(goods.suppliers.filter(({ isActive }) => isActive));
  const sells = (supplier: string): number =>
    [...goods.supplies.values()].filter(({ suppliers }) =>
      suppliers.some((each) => each.supplier === supplier),
    ).length;
</script>

<div class="page page-text gap-5">
  <div class="flex flex-wrap items-center justify-between gap-3">
    <h1>Suppliers</h1>
    <a class="btn btn-main px-6" href="/stock/suppliers/new">Add a supplier</a>
  </div>
  {#if active.length > 0}
    <ul class="sheet grid gap-1" data-testid="suppliers">
      {#each active as supplier (supplier.id)}
        <li>
          <a
            class="hover:bg-base-200 grid min-h-14 content-center rounded-lg px-3"
            href="/stock/suppliers/{supplier.id}"
          >
            <b class="font-[600]">{supplier.name}</b>
            <span class="soft text-sm"
              >{[
                supplier.email,
                supplier.phone,
                supplier.days === 0 ? '' : `${String(supplier.days)} days to deliver`,
                `${String(sells(supplier.id))} items`,
              ]
                .filter((part) => part !== '')
                .join(' · ')}</span
            >
          </a>
        </li>
      {/each}
    </ul>
  {:else if goods.isRead}
    <p class="sheet soft">
      Nobody yet. Whom you buy from stands here, and on each item what they call it and how many
      come at once.
    </p>
  {/if}
</div>
