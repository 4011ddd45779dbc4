<script lang="ts">
  /** The lines of a list as they are wanted: typed, scanned, or filled by themselves. */
  import { BASE, SUPPLIERS, type Row } from '$lib/core/books/tables';
  import { firstDay } from '$lib/core/event/todays-event';
  import { seriesOf } from '$lib/core/event/plan-event';
  import { costText, readCost } from '$lib/core/money/cost-text';
  import { quantityText, thousandths } from '$lib/core/money/units';
  import {
    EACH_EVENT,
    fromLastTime,
    fromLevels,
    fromPar,
    shortOnLists,
  } from '$lib/core/stock/fill-list';
  import { wantedAt } from '$lib/core/order/order-state';
  import { freeOf, keptKey, type LineNow } from '$lib/core/stock/list-state';
  import { setLines, typedQuantity, type Wanted } from '$lib/core/stock/set-list';
  import { readListLines, type Planned } from '$lib/core/formats/goods-table';
  import { readCsv } from '$lib/device/csv';
  import { newId } from '$lib/device/new-id';
  import { underKey } from '$lib/device/under-key';
  import TakeFileIn from '../../../forms/TakeFileIn.svelte';
  import { quantityWords } from '$lib/ui/words/money-words';
  import { listRefusalWords } from '$lib/ui/words/stock-words';
  import { useStall } from '../../../stall.svelte';
  import { wholeList, type Goods } from '../../goods.svelte';
  import GoodsLine from '../../GoodsLine.svelte';

  interface Props {
    list: Row<'lists'>;
    lines: readonly LineNow[];
    goods: Goods;
    /** On hand where the goods come from, by item. */
    here: ReadonlyMap<string, number>;
    /** Ended: it is only looked at. */
    isFixed?: boolean;
  }
  const { list, lines, goods, here, isFixed = false }: Props = $props();
  const stall = useStall();
  const { books } = stall.db;
  let says = $state('');
  let isBusy = $state(false);
  const isOrder = $derived(list.use === 'order' || list.use === 'back');
  const currency = $derived(stall.business.currency);

  /** By the lines as they are by then: two scans one behind the other both count. */
  async function decide(
    wanted: (lines: ReadonlyMap<string, LineNow>) => readonly Wanted[],
  ): Promise<string> {
    isBusy = true;
    const outcome = await stall.daybook
      .decide(
        () => wholeList(stall, list),
        (found) => {
          const now = new Map(found.lines.map((line) => [line.item, line]));
          return setLines(newId, found.list, found.lines, wanted(now));
        },
      )
      .finally(() => (isBusy = false));
    says =
      outcome.ok || outcome.refusal.code === 'slip/gone'
        ? ''
        : listRefusalWords(outcome.refusal, goods.nameOf);
    return says;
  }
  const want = (wanted: readonly Wanted[]): Promise<string> => decide(() => wanted);
  const lineOf = (item: string): LineNow | undefined => lines.find((line) => line.item === item);
  async function add(item: Row<'items'>, quantity: number | null): Promise<string> {
    const more = quantity ?? 1000;
    const supplier = goods.supplies
      .get(item.id)
      ?.suppliers.find((each) => each.supplier === list.supplier);
    return await decide((now) => {
      const line = now.get(item.id);
      const price = line?.price ?? supplier?.price;
      return [
        {
          ...{ item: item.id, wanted: (line?.wanted ?? 0) + more },
          ...(price === undefined ? {} : { price }),
        },
      ];
    });
  }
  async function change(line: LineNow, typed: string): Promise<void> {
    const item = goods.items.get(line.item);
    const read = typedQuantity(typed, item ?? { decimals: 3 });
    if (!read.ok) {
      says = `${goods.nameOf(line.item)}: ${listRefusalWords(read.refusal, goods.nameOf)}`;
      return;
    }
    await want([{ item: line.item, wanted: read.quantity }]);
  }
  async function price(line: LineNow, typed: string): Promise<void> {
    const cost = typed.trim() === '' ? null : readCost(typed, currency);
    if (cost === null && typed.trim() !== '') {
      says = `${goods.nameOf(line.item)}: “${typed}” is no price; type one such as 1.50.`;
      return;
    }
    await decide((now) => [
      { item: line.item, wanted: now.get(line.item)?.wanted ?? line.wanted, price: cost },
    ]);
  }

  /** The edition before this one that has sold something. */
  const lastTime = $derived.by(() => {
    const event = stall.events.find(({ id }) => id === list.event);
    if (event === undefined) return undefined;
    return stall.events
      .filter((each) => each.id !== event.id && seriesOf(each) === seriesOf(event))
      .filter((each) => firstDay(each) < firstDay(event))
      .toSorted((a, b) => (firstDay(a) < firstDay(b) ? 1 : -1))[0];
  });
  async function fill(wanted: readonly Wanted[], nothing: string): Promise<void> {
    // What somebody has set stays; only what is more is written.
    const more = wanted.filter((each) => (lineOf(each.item)?.wanted ?? 0) < each.wanted);
    if (more.length === 0) says = nothing;
    else await want(more);
  }
  async function asLastTime(): Promise<void> {
    if (lastTime === undefined) return;
    const sold = await books.eventItems.where('event').equals(lastTime.id).toArray();
    await fill(fromLastTime(sold, goods.items), 'Nothing more was sold last time.');
  }
  async function upToPar(): Promise<void> {
    const place = list.use === 'load' ? EACH_EVENT : list.to;
    const rows = await underKey(books.stock, list.to).toArray();
    const there = new Map(rows.map(({ item, quantity }) => [item, quantity]));
    const wanted = fromPar(place, goods.supplies, goods.stocked, (item) => there.get(item) ?? 0);
    await fill(wanted, 'Nothing is below its par level.');
  }
  async function whatIsLow(isOnlyGiven: boolean): Promise<void> {
    const rows = await underKey(books.stock, list.to).toArray();
    const there = new Map(rows.map(({ item, quantity }) => [item, quantity]));
    const wanted = fromLevels({
      place: list.to,
      supplier: list.from === SUPPLIERS ? list.supplier : null,
      items: goods.stocked,
      supplies: goods.supplies,
      standing: (item) => {
        const kept = goods.kept.get(keptKey(list.to, item));
        return {
          onHand: there.get(item) ?? 0,
          reserved: kept?.reserved ?? 0,
          onOrder: kept?.onOrder ?? 0,
        };
      },
      canGive: isOnlyGiven
        ? (item) => freeOf(here.get(item) ?? 0, goods.kept.get(keptKey(list.from, item)))
        : undefined,
    });
    await fill(wanted, 'Nothing is at or below its reorder level that is not on order already.');
  }
  /** What load lists want from where this comes to, and is not there: less what is on its way there already. */
  async function whatIsShort(): Promise<void> {
    const rows = await underKey(books.stock, list.to).toArray();
    const there = new Map(rows.map(({ item, quantity }) => [item, quantity]));
    const wanted = shortOnLists(
      list.to,
      goods.lists.filter((each) => each.list.id !== list.id),
      (item) => (there.get(item) ?? 0) + (goods.kept.get(keptKey(list.to, item))?.onOrder ?? 0),
    );
    const isSold = ({ item }: Wanted): boolean =>
      list.supplier === null ||
      goods.supplies.get(item)?.suppliers.some(({ supplier }) => supplier === list.supplier) ===
        true;
    await fill(wanted.filter(isSold), 'Nothing is short on an open load list.');
  }
  /** What customers collect at the event is wanted beside what is for sale: the more of it, the more goes on. */
  async function whatIsOrdered(): Promise<void> {
    const ordered = [...wantedAt(list.event ?? '', goods.orders)].map(([item, wanted]) => ({
      ...{ item, wanted },
    }));
    await fill(ordered, 'Nothing is ordered for this event that is not on the list already.');
  }
  async function allThere(): Promise<void> {
    const wanted = [...here]
      .filter(([item, quantity]) => quantity > 0 && goods.items.has(item))
      .map(([item, quantity]) => ({ item, wanted: quantity }));
    await fill(wanted, `Nothing is at ${goods.placeName(list.from)}.`);
  }

  function readFile(text: string): Promise<readonly Planned[] | string> {
    const { lines: found, fault } = readCsv(text, ['code', 'item']);
    return Promise.resolve(
      fault !== ''
        ? fault
        : readListLines({
            newId,
            lines: found,
            items: goods.items.values(),
            list,
            now: lines,
            currency,
          }),
    );
  }

  const standsWords = (line: LineNow): string => {
    if (list.from === SUPPLIERS) {
      const kept = goods.kept.get(keptKey(list.to, line.item));
      return kept === undefined || kept.onOrder === 0
        ? ''
        : `${quantityWords(kept.onOrder, '')} on order already`;
    }
    const onHand = here.get(line.item) ?? 0;
    const free = freeOf(onHand, goods.kept.get(keptKey(list.from, line.item)));
    const short = line.wanted - free;
    const unit = goods.unitOf(line.item);
    const at = goods.placeName(list.from);
    if (short > 0)
      return `${quantityWords(short, unit)} short: ${quantityWords(free, unit)} free at ${at}`;
    return `${quantityWords(onHand, unit)} at ${at}, ${quantityWords(onHand - line.wanted, unit)} stay`;
  };
  const isShort = (line: LineNow): boolean =>
    list.from !== SUPPLIERS &&
    line.wanted > freeOf(here.get(line.item) ?? 0, goods.kept.get(keptKey(list.from, line.item)));
</script>

{#if !isFixed}
  <GoodsLine
    label="Scan or type what is wanted: 12 fern"
    items={goods.stocked}
    onGoods={add}
    does={(_item, quantity) => `Enter: ${quantityWords(quantity ?? 1000, '')} more`}
  />
  <div class="flex flex-wrap gap-2">
    {#if list.use === 'load' && lastTime !== undefined}
      <button type="button" class="btn btn-quiet" disabled={isBusy} onclick={asLastTime}
        >As sold last time</button
      >
    {/if}
    {#if list.use === 'load' && list.event !== null}
      <button type="button" class="btn btn-quiet" disabled={isBusy} onclick={whatIsOrdered}
        >What is ordered for it</button
      >
    {/if}
    {#if list.use === 'load' || list.use === 'transfer'}
      <button type="button" class="btn btn-quiet" disabled={isBusy} onclick={upToPar}
        >Up to par</button
      >
    {/if}
    {#if list.use === 'order'}
      <button type="button" class="btn btn-quiet" disabled={isBusy} onclick={() => whatIsLow(false)}
        >Everything that is low</button
      >
      {#if list.from !== SUPPLIERS}
        <button
          type="button"
          class="btn btn-quiet"
          disabled={isBusy}
          onclick={() => whatIsLow(true)}>What {goods.placeName(list.from)} can give</button
        >
      {/if}
    {/if}
    {#if list.use === 'order' || list.use === 'transfer'}
      <button type="button" class="btn btn-quiet" disabled={isBusy} onclick={whatIsShort}
        >What is short on load lists</button
      >
    {/if}
    {#if list.use === 'unload' || (list.use === 'transfer' && list.from !== BASE)}
      <button type="button" class="btn btn-quiet" disabled={isBusy} onclick={allThere}
        >Everything that is there</button
      >
    {/if}
  </div>
{/if}
{#if says !== ''}<p class="text-error" role="alert">{says}</p>{/if}
{#if !isFixed}
  <details>
    <summary class="min-h-10 cursor-pointer py-2">From a file</summary>
    <TakeFileIn
      label="A CSV file with “code” or “item”, and “wanted”"
      accept=".csv,text/csv"
      right={null}
      read={readFile}
      things={['line is', 'lines are']}
    />
  </details>
{/if}
<section class="sheet" aria-label="Lines">
  <table class="rows" data-testid="list-lines">
    <thead>
      <tr>
        <th scope="col" class="!text-left">Item</th>
        <th scope="col">Wanted</th>
        {#if isOrder}<th scope="col" class="max-sm:hidden">Price</th>{/if}
        {#if isFixed}<th scope="col">Done</th>{:else}<th scope="col"
            ><span class="sr-only">Remove</span></th
          >{/if}
      </tr>
    </thead>
    <tbody>
      {#each lines as line (line.item)}
        <tr>
          <td class="!text-left">
            <a class="plain" href="/stock/items/{line.item}">{goods.nameOf(line.item)}</a>
            {#if !isFixed}<span
                class={['block text-sm', isShort(line) ? 'text-error font-[600]' : 'soft']}
                >{standsWords(line)}</span
              >{/if}
          </td>
          <td class="figure">
            {#if isFixed}{quantityWords(line.wanted, goods.unitOf(line.item))}{:else}
              <input
                class="input figure w-20 text-right"
                inputmode="decimal"
                aria-label="Wanted of {goods.nameOf(line.item)}"
                value={quantityText(thousandths(line.wanted))}
                onchange={(event) => change(line, event.currentTarget.value)}
              />
            {/if}
          </td>
          {#if isOrder}
            <td class="figure max-sm:hidden">
              {#if isFixed}{costText(line.price, currency)}{:else}
                <input
                  class="input figure w-24 text-right"
                  inputmode="decimal"
                  aria-label="Price of {goods.nameOf(line.item)}"
                  value={costText(line.price, currency)}
                  onchange={(event) => price(line, event.currentTarget.value)}
                />
              {/if}
            </td>
          {/if}
          <td class="figure">
            {#if isFixed}{quantityWords(line.received, goods.unitOf(line.item))}{:else}
              <button
                type="button"
                class="btn btn-quiet px-3"
                aria-label="Remove {goods.nameOf(line.item)}"
                onclick={() => want([{ item: line.item, wanted: 0 }])}>×</button
              >
            {/if}
          </td>
        </tr>
      {:else}
        <tr
          ><td colspan="4" class="soft !text-left"
            >Nothing is on it yet. Type a name or a code above, or let it fill itself.</td
          ></tr
        >
      {/each}
    </tbody>
  </table>
</section>
