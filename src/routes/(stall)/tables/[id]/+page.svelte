<script lang="ts">
  import { page } from '$app/state';
  import { live } from '$lib/device/live.svelte';
  import { useStall } from '../../stall.svelte';
  import TableForm from './TableForm.svelte';

  const { db } = useStall();
  const id = $derived(page.params['id'] ?? 'new');
  const tables = live(() => () => db.books.tables.toArray(), []);
  const items = live(() => () => db.books.items.toArray(), []);
  const table = $derived(tables.value.find((each) => each.id === id));
</script>

<div class="page page-wide gap-5">
  {#if !tables.isRead || !items.isRead}
    <span></span>
  {:else if id !== 'new' && table === undefined}
    <h1>No such table</h1>
    <p class="sheet">This device knows none. <a class="plain" href="/tables">Tables</a></p>
  {:else}
    <h1>{table?.name ?? 'Lay out a table'}</h1>
    {#key table?.setStamp}
      <TableForm
        {...table === undefined ? {} : { table }}
        tables={tables.value}
        items={items.value}
      />
    {/key}
  {/if}
</div>
