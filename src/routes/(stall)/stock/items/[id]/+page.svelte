<script lang="ts">
  import { toast } from 'svelte-sonner';
  import { page } from '$app/state';
  import type { Row } from '$lib/core/books/tables';
  import { costText } from '$lib/core/money/cost-text';
  import { freeOf, keptKey, listNumber } from '$lib/core/stock/list-state';
  import { parOf } from '$lib/core/stock/fill-list';
  import { live } from '$lib/device/live.svelte';
  import { shortDayWords, timeWords } from '$lib/ui/words/date-words';
  import { saveFile } from '$lib/ui/files/save-file';
  import { quantityWords } from '$lib/ui/words/money-words';
  import { movedWords, reasonWords } from '$lib/ui/words/stock-words';
  import { useStall } from '../../../stall.svelte';
  import { Goods } from '../../goods.svelte';
  import GoneForm from './GoneForm.svelte';

  const stall = useStall();
  const { books } = stall.db;
  const goods = new Goods(stall);
  const id = $derived(page.params['id'] ?? '');
  const item = $derived(goods.items.get(id));
  const MOST = 200;
  const moves = live(() => {
    const wanted = id;
    return async () => {
      const all = await books.moves.where('item').equals(wanted).toArray();
      return all.toSorted((a, b) => (a.stamp < b.stamp ? 1 : -1)).slice(0, MOST);
    };
  }, []);
  const stock = live(() => {
    const wanted = id;
    return () => books.stock.filter((row) => row.item === wanted).toArray();
  }, []);
  /** The documents that moved it, as people know them. */
  const documents = live(() => {
    const docs = [...new Set(moves.value.map(({ doc }) => doc))];
    return async () => {
      const [sales, lists, counts] = await Promise.all([
        books.sales.bulkGet(docs),
        books.lists.bulkGet(docs),
        books.counts.bulkGet(docs),
      ]);
      const found = new Map<string, { readonly name: string; readonly href: string }>();
      for (const sale of sales)
        if (sale !== undefined)
          found.set(sale.id, { name: `sale ${sale.number}`, href: `/sales/${sale.id}` });
      for (const list of lists)
        if (list !== undefined && list.setStamp !== '')
          found.set(list.id, {
            name: `${list.name} ${listNumber(list)}`,
            href: `/stock/lists/${list.id}`,
          });
      for (const count of counts)
        if (count !== undefined && count.setStamp !== '')
          found.set(count.id, { name: count.name, href: `/stock/counts/${count.id}` });
      return found;
    };
  }, new Map<string, { readonly name: string; readonly href: string }>());
  const reasons = live(() => {
    const entries = moves.value
      .filter(({ kind }) => kind === 'stock.moved')
      .map(({ id: move }) => move.slice(0, 36));
    return async () => {
      const found = new Map<string, Row<'movements'>>();
      for (const entry of new Set(entries)) {
        const rows = await books.movements
          .where('[id+item]')
          .between([`${entry}:`, ''], [`${entry};`, ''])
          .toArray();
        for (const row of rows) if (row.item === id) found.set(entry, row);
      }
      return found;
    };
  }, new Map<string, Row<'movements'>>());
  const places = $derived(
    stock.value.filter(
      ({ place, quantity }) =>
        !place.startsWith('gone:') &&
        place !== 'suppliers' &&
        (quantity !== 0 || goods.kept.has(keptKey(place, id))),
    ),
  );
  const gone = $derived(
    stock.value.filter(({ place, quantity }) => place.startsWith('gone:') && quantity !== 0),
  );
  const supply = $derived(goods.supplies.get(id));
  const kept = (place: string) => goods.kept.get(keptKey(place, id));
  const levelAt = (place: string): number | undefined =>
    item?.reorder.find((each) => each.place === place)?.level;
  let many = $state('24');
  /** Of its barcode, or its own code where it has none. */
  async function labels(shape: 'sheet' | 'roll'): Promise<void> {
    if (item === undefined) return;
    const code = item.barcodes[0] ?? item.code;
    const wanted = Math.min(480, Math.max(1, Math.trunc(Number(many)) || 1));
    if (code === '') {
      toast.error('It has neither a barcode nor a code yet; give it one under How it is sold.');
      return;
    }
    const detail = [item.detail, item.isOpenPrice ? '' : stall.money.text(item.price)];
    const label = {
      ...{ code, name: item.name },
      detail: detail.filter((part) => part !== '').join(' · '),
    };
    const { labelSheet } = await import('$lib/device/paper/label-sheet');
    const all = Array.from({ length: wanted }, () => label);
    saveFile(`labels-${code}.pdf`, 'application/pdf', await labelSheet(all, shape));
  }
  const says = (move: Row<'moves'>): string => {
    const why = reasons.value.get(move.id.slice(0, 36));
    return why === undefined ? movedWords(move) : reasonWords(why.reason);
  };
</script>

<div class="page gap-5 [--page-width:62rem]">
  {#if item === undefined}
    {#if goods.isRead}
      <h1>No such item</h1>
      <p class="sheet">
        This device knows none of that kind. <a class="plain" href="/stock">Stock</a>
      </p>
    {/if}
  {:else}
    {@const { unit } = item}
    <h1>{item.name} <span class="soft">{item.detail}</span></h1>
    <p class="soft -mt-3">
      {[
        item.code,
        stall.money.text(item.price),
        item.cost === null ? '' : `cost ${costText(item.cost, stall.business.currency)}`,
      ]
        .filter((part) => part !== '')
        .join(' · ')}
    </p>
    <div class="grid grid-cols-[minmax(0,1fr)] items-start gap-6 lg:grid-cols-[1.4fr_1fr]">
      <div class="grid grid-cols-[minmax(0,1fr)] gap-5">
        <section class="sheet" aria-labelledby="where">
          <h2 id="where">Where it is</h2>
          <table class="rows" data-testid="where">
            <thead>
              <tr>
                <th scope="col" class="!text-left">Place</th>
                <th scope="col">On hand</th>
                <th scope="col">Reserved</th>
                <th scope="col">On order</th>
                <th scope="col">Free</th>
              </tr>
            </thead>
            <tbody>
              {#each places as { place, quantity } (place)}
                {@const free = freeOf(quantity, kept(place))}
                <tr>
                  <td class="!text-left">
                    {goods.placeName(place)}
                    {#if levelAt(place) !== undefined || parOf(goods.supplies, id, place) !== null}
                      <span class="soft block text-sm">
                        {levelAt(place) === undefined
                          ? ''
                          : `bought again at ${quantityWords(levelAt(place) ?? 0, unit)}`}
                        {parOf(goods.supplies, id, place) === null
                          ? ''
                          : `up to ${quantityWords(parOf(goods.supplies, id, place) ?? 0, unit)}`}
                      </span>
                    {/if}
                  </td>
                  <td class={['figure', quantity < 0 && 'text-error font-[650]']}
                    >{quantityWords(quantity, unit)}</td
                  >
                  <td class="figure">{quantityWords(kept(place)?.reserved ?? 0, unit)}</td>
                  <td class="figure">{quantityWords(kept(place)?.onOrder ?? 0, unit)}</td>
                  <td class="figure font-[600]">{quantityWords(free, unit)}</td>
                </tr>
              {:else}
                <tr><td colspan="5" class="soft !text-left">There is none anywhere.</td></tr>
              {/each}
            </tbody>
          </table>
          {#if gone.length > 0}
            <p class="soft mt-3 text-sm">
              Gone so far: {gone
                .map(
                  ({ place, quantity }) =>
                    `${quantityWords(quantity, unit)} ${place.slice(5).replaceAll('-', ' ')}`,
                )
                .join(', ')}
            </p>
          {/if}
        </section>
        {#if places.length > 0}{#key id}<GoneForm {item} {places} {goods} />{/key}{/if}
        <section class="sheet grid gap-2" aria-labelledby="supply">
          <h2 id="supply">How it is bought and carried</h2>
          {#each supply?.suppliers ?? [] as each, at (each.supplier)}
            <p>
              {goods.placeName('suppliers', each.supplier)}{at === 0 ? ', preferred' : ''}
              <span class="soft"
                >{[
                  each.code,
                  `in packs of ${quantityWords(each.pack, unit)}`,
                  each.price === null ? '' : `at ${costText(each.price, stall.business.currency)}`,
                ]
                  .filter((part) => part !== '')
                  .join(' · ')}</span
              >
            </p>
          {:else}
            <p class="soft">Nobody is noted whom it is bought from.</p>
          {/each}
          <div class="flex flex-wrap gap-2">
            <a class="btn btn-quiet" href="/stock/items/{id}/supply"
              >Suppliers, par levels, weight</a
            >
            <a class="btn btn-quiet" href="/items/{item.variantOf ?? id}">How it is sold</a>
          </div>
          <div class="flex flex-wrap items-end gap-2">
            <label class="grid gap-1 font-[560]">
              Labels
              <input
                class="input figure w-20"
                bind:value={many}
                inputmode="numeric"
                maxlength="3"
              />
            </label>
            <button type="button" class="btn btn-quiet" onclick={() => labels('sheet')}
              >On a sheet</button
            >
            <button type="button" class="btn btn-quiet" onclick={() => labels('roll')}
              >On a roll</button
            >
          </div>
        </section>
      </div>
      <section aria-labelledby="happened">
        <h2 id="happened" class="mb-3">What happened to it</h2>
        <ol class="thread" data-testid="moves">
          {#each moves.value as move (move.id)}
            {@const document = documents.value.get(move.doc)}
            <li>
              <b class="figure font-[600]"
                >{move.quantity > 0 ? '+' : ''}{quantityWords(move.quantity, unit)}</b
              >
              {says(move)}, {goods.placeName(move.place)}
              <span class="soft block text-sm"
                >{shortDayWords(move.at.slice(0, 10), stall.business.locale)}
                {timeWords(move.at, stall.business.locale, stall.business.timeZone)} · {stall.nameOf(
                  move.by,
                )}{document === undefined ? '' : ' · '}{#if document !== undefined}<a
                    class="plain"
                    href={document.href}>{document.name}</a
                  >{/if}</span
              >
            </li>
          {:else}
            {#if moves.isRead}<li class="soft">Nothing in the last days.</li>{/if}
          {/each}
        </ol>
      </section>
    </div>
  {/if}
</div>
