<script lang="ts">
  import type { Row } from '$lib/core/books/tables';
  import { orderTables } from '$lib/core/goods/set-table';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import { moved } from '$lib/ui/forms/moved';
  import { toast } from 'svelte-sonner';
  import MoveButtons from '../MoveButtons.svelte';
  import { useStall } from '../stall.svelte';

  const stall = useStall();
  const { db } = stall;
  const all = live(() => () => db.books.tables.toArray(), []);
  const inOrder = $derived(
    all.value
      .filter(({ setStamp, isActive }) => setStamp !== '' && isActive)
      .sort((a, b) => a.sort - b.sort || (a.id < b.id ? -1 : 1)),
  );
  const putAway = $derived(
    all.value.filter(({ setStamp, isActive }) => setStamp !== '' && !isActive),
  );
  const eventName = ({ event }: Row<'tables'>): string =>
    event === null ? '' : ` · only at ${stall.events.find(({ id }) => id === event)?.name ?? '…'}`;

  async function move(from: number, to: number): Promise<void> {
    if (!stall.may('set-up')) {
      toast.error('Only somebody who may change goods and events can move tables.');
      return;
    }
    const next = moved(inOrder, from, to);
    await stall.daybook.append(() => ({ ok: true, drafts: orderTables(newId, next) }));
  }
</script>

<div class="page page-text gap-5">
  <div class="flex flex-wrap items-center justify-between gap-3">
    <h1>Tables</h1>
    <a class="btn btn-main px-6" href="/tables/new">Lay out a table</a>
  </div>
  <p class="soft">
    Goods as they lie on the stall, in the order of the tabs at the counter. An event with tables of
    its own shows those alone.
  </p>
  <ul class="sheet grid gap-1" data-testid="tables">
    {#each inOrder as table, at (table.id)}
      <li class="flex flex-wrap items-center gap-2">
        <a
          class="hover:bg-base-200 flex min-h-14 min-w-0 flex-1 flex-wrap items-center justify-between gap-2 rounded-lg px-3"
          href="/tables/{table.id}"
        >
          <b class="text-lg">{table.name}</b>
          <span class="soft">{table.goods.length} goods{eventName(table)}</span>
        </a>
        <MoveButtons name={table.name} {at} count={inOrder.length} onmove={(to) => move(at, to)} />
      </li>
    {:else}
      <li class="soft p-3">No table yet. Lay out the first.</li>
    {/each}
  </ul>
  {#if putAway.length > 0}
    <section class="sheet" aria-labelledby="away">
      <h2 id="away">Put away</h2>
      <ul>
        {#each putAway as { id, name } (id)}
          <li><a class="plain inline-flex min-h-12 items-center" href="/tables/{id}">{name}</a></li>
        {/each}
      </ul>
    </section>
  {/if}
</div>
