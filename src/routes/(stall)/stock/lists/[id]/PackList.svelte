<script lang="ts">
  /** Packing what a list says: each thing a crate that fills, what is short said at once, and moved by one button. */
  import { toast } from 'svelte-sonner';
  import type { Row } from '$lib/core/books/tables';
  import { GONE } from '$lib/core/daybook/kinds/stock-moved';
  import { stageOf } from '$lib/core/event/stage';
  import {
    packedOf,
    shortOf,
    stateOf,
    toPack,
    toSend,
    type LineNow,
  } from '$lib/core/stock/list-state';
  import { fullOf, loadOf } from '$lib/core/stock/fill-list';
  import { movePacked, nowPacked, oneMore, pack, restGone, restOf } from '$lib/core/stock/do-list';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import { underKey } from '$lib/device/under-key';
  import { Growing } from '$lib/ui/list/growing.svelte';
  import Crate from '$lib/ui/stock/Crate.svelte';
  import { Packing } from '$lib/ui/stock/packing';
  import { quantityWords, thingsWords } from '$lib/ui/words/money-words';
  import { listRefusalWords, moveWords, reasonWords } from '$lib/ui/words/stock-words';
  import RightButton from '../../../RightButton.svelte';
  import { useStall } from '../../../stall.svelte';
  import { wholeList, type Goods } from '../../goods.svelte';
  import GoodsLine from '../../GoodsLine.svelte';

  interface Props {
    list: Row<'lists'>;
    lines: readonly LineNow[];
    goods: Goods;
    /** On hand where the goods come from, by item. */
    here: ReadonlyMap<string, number>;
  }
  const { list, lines, goods, here }: Props = $props();
  const stall = useStall();
  const { books } = stall.db;
  const NOT_LISTED = { wanted: 0, price: null, note: '', packed: 0, sent: 0, received: 0 };
  let says = $state('');
  let onlyShort = $state(false);
  let isBusy = $state(false);
  /** What was scanned or typed last: its crate may be far down. */
  let last = $state<string | null>(null);

  const packing = new Packing();
  const lineOf = (item: string): LineNow => {
    const known = lines.find((line) => line.item === item);
    return packing.now(known ?? { ...NOT_LISTED, item });
  };
  const missing = (line: LineNow): number => shortOf(line, here.get(line.item) ?? 0);
  const shown = $derived(onlyShort ? lines.filter((line) => missing(line) > 0) : lines);
  const growing = new Growing(() => shown.length);
  const short = $derived(lines.reduce((sum, line) => sum + missing(line), 0));
  const packed = $derived(lines.reduce((sum, line) => sum + toSend(line), 0));
  /** One text, so that it is the same as long as the same goods are short. */
  const shortItems = $derived(
    lines
      .filter((line) => missing(line) > 0)
      .map(({ item }) => item)
      .join(' '),
  );
  /** Where else some of what is short is. */
  const elsewhere = live(() => {
    const wanted = new Set(shortItems.split(' ').filter((item) => item !== ''));
    const { from, to } = list;
    return async () => {
      if (wanted.size === 0) return new Map<string, string>();
      const own = goods.places.filter(({ isActive }) => isActive).map(({ id }) => id);
      const rows = (
        await Promise.all(own.map((place) => underKey(books.stock, place).toArray()))
      ).flat();
      const found = new Map<string, string>();
      for (const { place, item, quantity } of rows)
        if (wanted.has(item) && quantity > 0 && place !== from && place !== to)
          found.set(item, `${quantityWords(quantity, '')} in ${goods.placeName(place)}`);
      return found;
    };
  }, new Map<string, string>());
  const crateSays = (line: LineNow): string => {
    const unit = goods.unitOf(line.item);
    const short = missing(line);
    if (short > 0) {
      const where = elsewhere.value.get(line.item);
      return `${quantityWords(short, unit)} more are not here${where === undefined ? '' : `: ${where}`}`;
    }
    const left = (here.get(line.item) ?? 0) - toSend(line) - toPack(line);
    const at = goods.placeName(list.from);
    return packedOf(line) >= line.wanted
      ? `packed · ${quantityWords(left, unit)} stay at ${at}`
      : `at ${at} ${quantityWords((here.get(line.item) ?? 0) - toSend(line), unit)}`;
  };
  const van = $derived(goods.places.find(({ id }) => id === list.van));
  const load = $derived(
    loadOf(
      lines.map((line) => ({ item: line.item, quantity: packedOf(line) })),
      goods.supplies,
    ),
  );
  const vanFull = $derived(van === undefined ? 0 : fullOf(load, van));

  /** A tap on a crate. Another may have been refused meanwhile: one that goes well leaves what is said of that. */
  async function tapped(item: string, quantity: number): Promise<void> {
    const wrong = await put(item, quantity);
    if (wrong !== '') says = wrong;
  }
  /** @returns What is wrong, or nothing. */
  async function put(item: string, quantity: number): Promise<string> {
    const goodsIn = [{ item, quantity }];
    let wrong = '';
    says = '';
    await packing.during(lineOf(item), quantity, async () => {
      // What is put in adds up whatever there is; no more is taken out than is in by then.
      const outcome =
        quantity > 0
          ? await stall.daybook.append(() => pack(newId, list, lines, goodsIn))
          : await stall.daybook.decide(
              () => wholeList(stall, list),
              (found) => pack(newId, found.list, found.lines, goodsIn),
            );
      if (!outcome.ok && outcome.refusal.code !== 'slip/gone')
        wrong = listRefusalWords(outcome.refusal, goods.nameOf);
      if (outcome.ok && 'vibrate' in navigator) navigator.vibrate(25);
      return outcome.ok;
    });
    return wrong;
  }
  const one = (item: string): number =>
    oneMore(lineOf(item), goods.items.get(item) ?? { decimals: 0 });

  async function move(lentBy?: string): Promise<void> {
    if (isBusy) return;
    isBusy = true;
    // Decided by the rows as they are: a second tap, or another window, finds that it has left.
    const outcome = await stall.daybook
      .decide(
        async () => ({
          event: list.event === null ? undefined : await books.events.get(list.event),
          ...(await wholeList(stall, list)),
        }),
        (found) => {
          const moved = movePacked(newId, found.list, found.lines, goods.items);
          const stage = found.event === undefined ? undefined : stageOf(found.event);
          return moved.ok
            ? { ...moved, drafts: [...moved.drafts, ...nowPacked(newId, found.list, stage)] }
            : moved;
        },
        lentBy === undefined ? {} : { lentBy },
      )
      .finally(() => (isBusy = false));
    if (!outcome.ok) {
      if (outcome.refusal.code !== 'slip/gone')
        says = listRefusalWords(outcome.refusal, goods.nameOf);
      return;
    }
    toast(`${thingsWords(packed)} on the way from ${goods.placeName(list.from)}.`);
  }
  const isDone = $derived(stateOf(list, lines) === 'done');

  /** Of an unload list: what is still at the event and does not come back. */
  const rest = $derived(list.use === 'unload' ? restOf(here, lines) : []);
  let became = $state<(typeof GONE)[number]>('lost');
  let chosen = $state('');
  async function sayGone(lentBy?: string): Promise<void> {
    const why = became;
    const only = chosen;
    const outcome = await stall.daybook.decide(
      () => underKey(books.stock, list.from).toArray(),
      (rows) => {
        const there = new Map(rows.map(({ item, quantity }) => [item, quantity]));
        const gone = rest.filter(({ item }) => only === '' || only === item);
        return restGone({ newId, list, goods: gone, there, why, costs: goods.items });
      },
      lentBy === undefined ? {} : { lentBy },
    );
    if (outcome.ok) {
      toast('It is in the books, with its reason.');
      chosen = '';
    } else if (outcome.refusal.code !== 'slip/gone')
      says = listRefusalWords(outcome.refusal, goods.nameOf);
  }
</script>

{#if van !== undefined}
  <section class="sheet grid gap-2" aria-label="The van" data-testid="van">
    <div class="flex flex-wrap justify-between gap-x-4">
      <b class="font-[600]">{goods.placeName(van.id)}</b>
      <span class="figure"
        >{Math.round(load.weight / 1000)}{van.mostWeight === null
          ? ''
          : ` of ${String(Math.round(van.mostWeight / 1000))}`} kg · {Math.ceil(
          load.crates / 1000,
        )}{van.mostCrates === null ? '' : ` of ${String(van.mostCrates / 1000)}`} crates</span
      >
    </div>
    <progress
      class={['progress w-full', vanFull > 1 ? 'progress-error' : 'progress-primary']}
      value={Math.min(1, vanFull)}
      max="1"
      aria-label="How full it is"
    ></progress>
    {#if vanFull > 1}<p class="text-error" role="alert">
        That is more than it can carry; leave something behind or take a second trip.
      </p>{/if}
    {#if !load.isWhole}<p class="soft text-sm">
        Some things have no weight yet; set it on their page.
      </p>{/if}
  </section>
{/if}
<GoodsLine
  label="Scan or type what goes in"
  items={goods.stocked}
  onGoods={(item, quantity) => {
    last = item.id;
    return put(item.id, quantity ?? one(item.id));
  }}
  does={(item, quantity) => `Enter packs ${quantityWords(quantity ?? one(item.id), '')}`}
/>
{#if says !== ''}<p class="text-error" role="alert">{says}</p>{/if}
<p class="min-h-6" role="status" data-testid="just-packed">
  {#if last !== null}
    {@const line = lineOf(last)}
    <b class="font-[600]">{goods.nameOf(last)}</b>
    {quantityWords(packedOf(line), '')}
    {line.wanted === 0 ? 'packed, not on the list' : `of ${quantityWords(line.wanted, '')} packed`}
  {/if}
</p>
<ul class="grid grid-cols-[minmax(0,1fr)] gap-2.5" data-testid="crates">
  {#each shown.slice(0, growing.many) as line (line.item)}
    {@const item = goods.items.get(line.item)}
    {@const now = packing.now(line)}
    <Crate
      name={item?.name ?? 'something unknown'}
      detail={item?.detail ?? ''}
      unit={item?.unit ?? ''}
      done={packedOf(now)}
      wanted={line.wanted}
      says={crateSays(now)}
      isShort={missing(now) > 0}
      isBeingWritten={packing.isBeingWritten(line.item)}
      onAdd={() => tapped(line.item, one(line.item))}
      onTake={() => tapped(line.item, -1000)}
    />
  {/each}
  {#if growing.many < shown.length}
    <li class="soft min-h-12" {@attach growing.atEnd}>
      {shown.length - growing.many} more …
    </li>
  {/if}
</ul>
<div
  class="bg-base-100 sticky -bottom-4 z-10 -mb-4 flex md:-bottom-7 md:-mb-7 flex-wrap items-center gap-3 py-3"
  data-testid="pack-foot"
>
  {#if short > 0}
    <button
      type="button"
      class={['btn btn-quiet px-4', onlyShort && '!border-primary !border-3']}
      aria-pressed={onlyShort}
      onclick={() => (onlyShort = !onlyShort)}>{quantityWords(short, '')} short</button
    >
    <a
      class="btn btn-quiet px-4"
      href="/stock/lists/new?use=order&to={encodeURIComponent(list.from)}">Order what is short</a
    >
  {/if}
  {#if packed > 0}
    <RightButton
      right="stock.move"
      label="{moveWords[list.use]} {thingsWords(packed)}"
      {isBusy}
      onGo={move}
    />
  {:else if !isDone}
    <p class="soft">Nothing is packed that has not left already.</p>
  {/if}
</div>
{#if rest.length > 0}
  <section class="sheet grid gap-3" aria-labelledby="rest">
    <h2 id="rest">What does not come back</h2>
    <p>
      {thingsWords(rest.reduce((sum, { quantity }) => sum + quantity, 0))} still at {goods.placeName(
        list.from,
      )} by the books. Count back what is there, or say what became of it; what is left without a reason
      stays open for settling.
    </p>
    <div class="flex flex-wrap items-end gap-3">
      <label class="grid min-w-0 gap-1 font-[560]">
        Which
        <select class="select min-h-12" bind:value={chosen}>
          <option value="">all of it</option>
          {#each rest as { item, quantity } (item)}
            <option value={item}
              >{quantityWords(quantity, goods.unitOf(item))} × {goods.nameOf(item)}</option
            >
          {/each}
        </select>
      </label>
      <label class="grid gap-1 font-[560]">
        Was
        <select class="select min-h-12" bind:value={became}>
          {#each GONE as each (each)}<option value={each}>{reasonWords(each)}</option>{/each}
        </select>
      </label>
      <RightButton right="stock.move" label="Say so" look="btn-quiet" onGo={sayGone} />
    </div>
  </section>
{/if}
