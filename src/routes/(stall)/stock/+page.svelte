<script lang="ts">
  import { BASE, type Row } from '$lib/core/books/tables';
  import { isKnown } from '$lib/core/event/todays-event';
  import type { Column } from '$lib/core/list/list-view';
  import { live } from '$lib/device/live.svelte';
  import List from '$lib/ui/list/List.svelte';
  import { leftWords, quantityWords } from '$lib/ui/words/money-words';
  import { useStall } from '../stall.svelte';

  const stall = useStall();
  const { db } = stall;
  const items = live(() => () => db.books.items.toArray(), []);
  const at = (place: () => string | undefined) =>
    live(() => {
      const wanted = place();
      return async () =>
        new Map(
          wanted === undefined
            ? []
            : (await db.books.stock.where('place').equals(wanted).toArray()).map((row) => [
                row.item,
                row.quantity,
              ]),
        );
    }, new Map<string, number>());
  const base = at(() => BASE);
  const here = at(() => stall.event?.id);

  const stocked = $derived(
    items.value.filter((item) => isKnown(item) && item.isActive && item.isStocked),
  );
  type Item = Row<'items'>;
  /** Thousandths, as they are counted; a file has whole units with decimals. */
  const units = (quantity: number | undefined): number => (quantity ?? 0) / 1000;
  const columns = $derived<readonly Column<Item>[]>([
    {
      key: 'name',
      head: 'Item',
      is: 'text',
      value: ({ name, detail }) => (detail === '' ? name : `${name}, ${detail}`),
    },
    { key: 'code', head: 'Code', is: 'text', value: ({ code }) => code },
    {
      key: 'here',
      head: stall.event?.short ?? 'Here',
      is: 'figure',
      value: ({ id }) => units(here.value.get(id)),
      show: ({ id, unit }) => leftWords(here.value.get(id) ?? 0, unit),
    },
    {
      key: 'base',
      head: 'Base',
      is: 'figure',
      value: ({ id }) => units(base.value.get(id)),
      show: ({ id, unit }) => quantityWords(base.value.get(id) ?? 0, unit),
    },
  ]);
  const looks = ({ id, low }: Item, column: string): string => {
    if (column === 'code') return 'code soft';
    const isLow = column === 'here' && (here.value.get(id) ?? 0) <= low;
    return isLow ? 'text-error font-[650]' : '';
  };
</script>

<div class="page gap-5">
  <h1>Stock</h1>
  <section class="sheet">
    {#if items.isRead}
      <List
        name="Stock"
        rows={stocked}
        {columns}
        keyOf={({ id }) => id}
        order={{ column: 'name', isDown: false }}
        find="Find an item"
        empty="Nothing is called that."
        wide={['code']}
        {looks}
      >
        {#snippet first({ name, detail }: Item)}
          <b class="font-[600]">{name}</b> <span class="soft">{detail}</span>
        {/snippet}
      </List>
    {/if}
  </section>
</div>
