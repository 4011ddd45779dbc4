<script lang="ts">
  import { tick } from 'svelte';
  import { goto } from '$app/navigation';
  import { toast } from 'svelte-sonner';
  import type { Row } from '$lib/core/books/tables';
  import { isKnownBy } from '$lib/core/customer/set-customer';
  import { entryDoes, tapDoes, type Does } from '$lib/core/entry-line/does';
  import { goodsOf } from '$lib/core/entry-line/find-items';
  import type { Late, Outcome } from '$lib/core/entry-line/late';
  import { understand, type Understood } from '$lib/core/entry-line/understand';
  import { stageOf } from '$lib/core/event/stage';
  import { readQuantity } from '$lib/core/money/typed';
  import type { PutWith, SlipRefusal } from '$lib/core/slip/open-slip';
  import { customerOf } from '$lib/device/customer-records';
  import { live } from '$lib/device/live.svelte';
  import EntryLine from '$lib/ui/counter/EntryLine.svelte';
  import { keyOf, type CounterKey } from '$lib/ui/counter/keys';
  import Tag from '$lib/ui/counter/Tag.svelte';
  import { painted } from '$lib/ui/frame/painted';
  import { refusalWords } from '$lib/ui/words/refusal-words';
  import { useStall } from '../stall.svelte';
  import ItemSheet from './ItemSheet.svelte';
  import KeyList from './KeyList.svelte';
  import SlipPaper from './SlipPaper.svelte';
  import { setAside } from './keep-slip';
  import { LateEntries, quoted } from './late-entries.svelte';
  import { OnTable } from './on-table.svelte';
  import ScanCamera from './ScanCamera.svelte';
  import { Promotions } from './pay/promotions.svelte';
  import { takeCash } from './take-payment';
  import { faultWords } from '$lib/ui/words/fault-words';
  import { stillHere } from '../still-here';

  const stall = useStall();
  const { db, slip } = stall;
  const money = $derived(stall.money);

  const table = new OnTable(stall);
  /** A customer who has reached a reward is asked whether to use it now. */
  const promotions = new Promotions({
    stall,
    tip: 0,
    get left() {
      return slip.left;
    },
  });
  const goods = $derived(goodsOf(table.all));

  let typed = $state('');
  let field = $state<HTMLInputElement>();
  const makers = live(() => () => db.books.makers.toArray(), []);
  /** Codes of customers' cards. */
  const cards = live(() => () => db.books.customers.orderBy('code').uniqueKeys(), []);
  const cardCodes = $derived(
    new Set(
      cards.value.flatMap((code) =>
        typeof code === 'string' && code !== '' ? code.toLowerCase() : [],
      ),
    ),
  );
  const meaning = (text: string): Understood =>
    understand(text, goods, money.currency, makers.value, cardCodes);
  const understood = $derived(meaning(typed));
  const isDesk = matchMedia('(min-width: 768px) and (pointer: fine)').matches;
  const canSell = $derived(stall.event !== undefined && stageOf(stall.event) === 'trading');

  /** Says why something was refused. @returns Whether nothing was. */
  function accepted(refusal: SlipRefusal | null): boolean {
    if (refusal !== null) toast.error(refusalWords(refusal, money));
    return refusal === null;
  }

  let isScanning = $state(false);
  /** What must be said before it can go on the slip: which one, what with, what price, how long. */
  let sheet = $state.raw<{ item: Row<'items'>; quantity: number } | null>(null);

  function put(item: Row<'items'>, quantity: number, putWith: PutWith = {}): boolean {
    const isPut = accepted(slip.put(item, quantity, putWith));
    if (isPut && item.isStocked) void warnIfGone(item);
    return isPut;
  }

  /** The goods are in the hand, whatever the books say: it is sold, and said. */
  async function warnIfGone(item: Row<'items'>): Promise<void> {
    const place = stall.event?.id;
    if (place === undefined) return;
    // The slip is seen first.
    await painted();
    const left = (await db.books.stock.get([place, item.id]))?.quantity ?? 0;
    if (left - (slip.onSlip.get(item.id) ?? 0) < 0)
      toast(
        `According to the books there is not that much ${item.name} left. You can sell it anyway.`,
      );
  }

  /** Whoever has this card buys; two devices out of touch may have given it twice. */
  async function putCustomer(code: string): Promise<boolean> {
    const all = await db.books.customers.where('code').equalsIgnoreCase(code).toArray();
    const known = all.filter((each) => isKnownBy(each, code));
    const people = await Promise.all(known.map(({ id }) => customerOf(db, id)));
    const found = known.flatMap((own, at) => {
      const whose = people[at] ?? own;
      return people.findIndex((each) => each?.id === whose.id) === at ? [whose] : [];
    });
    const [only] = found;
    if (only === undefined || found.length > 1) {
      toast.error(
        only === undefined
          ? `Nobody has the card ${code} any more.`
          : `${found.map(({ name }) => name).join(' and ')} have the card ${code}: put one of them on by name.`,
      );
      return false;
    }
    const { id, name, discount } = only;
    const isPut = accepted(slip.say({ customer: { id, name, discount } }));
    if (isPut) toast(`${name} buys.`);
    return isPut;
  }

  function tap(item: Row<'items'>): void {
    void doIt(tapDoes(item));
  }

  /** What entries are understood by has been read. */
  const isReady = $derived(table.areGoodsRead && makers.isRead && cards.isRead);
  const late = new LateEntries(() => isReady);
  const entered = (text: string, chosen: Row<'items'> | null = null): Late => ({
    text,
    does: () => enterLate(text, chosen),
  });
  function doEntry(chosen: Row<'items'> | null): void {
    if (late.isAtOnce) {
      const meant = entryDoes(understood, chosen, stall.taxes);
      if (meant === null) return;
      typed = '';
      void doIt(meant);
      field?.focus();
      return;
    }
    late.add(entered(typed, chosen));
    typed = '';
  }
  /** What stands in the entry line by now is the next, and stays; so does a question that is open. */
  async function enterLate(text: string, chosen: Row<'items'> | null): Promise<Outcome> {
    const what = meaning(text);
    const meant = entryDoes(what, chosen, stall.taxes);
    if (meant === null && typed === '') {
      typed = text;
      return 'asked';
    }
    if (meant === null) {
      if (what.means === 'refused') toast.error(refusalWords(what.refusal, money));
      return 'not done';
    }
    if (meant.does === 'ask' && sheet !== null) return 'not done';
    if (meant.does === 'await quantity' && typed !== '') return 'not done';
    try {
      return (await doIt(meant)) ? 'done' : 'asked';
    } catch (error) {
      toast.error(faultWords(error));
      return 'not done';
    }
  }

  /** @returns Whether that was all: the seller has nothing to say or to look at first. */
  async function doIt(what: Does): Promise<boolean> {
    switch (what.does) {
      case 'put':
        return put(what.item, what.quantity, what.said);
      case 'put unlisted':
        return accepted(slip.putUnlisted(what.line));
      case 'put customer':
        return await putCustomer(what.code);
      case 'ask':
        sheet = { item: what.item, quantity: what.quantity };
        return false;
      case 'await quantity':
        typed = ` ${what.name}`;
        field?.focus();
        field?.setSelectionRange(0, 0);
        return false;
      case 'open receipt':
        void goto(`/find?for=${encodeURIComponent(`${what.code.number} ${what.code.check}`)}`);
        return false;
      case 'make':
        void goto(`/items/new?barcode=${what.barcode}`);
        return false;
    }
  }

  function setQuantity(key: string, text: string): string | null {
    const quantity = readQuantity(text);
    if (quantity === null) return `“${text}” is not a quantity; type figures such as 3 or 0.385.`;
    const refusal = slip.setQuantity(key, quantity);
    return refusal === null ? null : refusalWords(refusal, money);
  }

  async function payExactly(): Promise<void> {
    // Known before the tap: what is tapped behind it is not waited for, and belongs to the next slip.
    if (promotions.toAsk().length > 0) {
      await goto('/counter/pay');
      return;
    }
    try {
      const done = await takeCash(stall, null);
      // Tapped twice: the first one has rung it up.
      if (!done.ok && done.refusal.code !== 'slip/ended')
        toast.error(refusalWords(done.refusal, money));
    } catch (error) {
      const why = faultWords(error);
      toast.error(`Nothing was rung up, and the slip is still here: ${why}`);
    }
  }

  /** Away in one gesture: the next customer is served. */
  async function putAside(): Promise<void> {
    const isEmptied = slip.isEmpty;
    const kept = await setAside(stall);
    if (kept.ok && isEmptied) toast('Nothing was left on it, so it is closed.');
    else if (!kept.ok) {
      if (kept.refusal.code !== 'slip/ended') toast.error(refusalWords(kept.refusal, money));
    } else toast(`${kept.name === '' ? 'The slip' : kept.name} is set aside.`);
  }

  async function showLastReceipt(): Promise<void> {
    const isHere = stillHere();
    const last = (await db.read('head'))?.lastSale ?? null;
    if (last === null) toast('Nothing has been rung up on this device yet.');
    else if (isHere()) await goto(`/sales/${last}`);
  }

  let moreDialog = $state<HTMLDialogElement>();
  let keyList = $state<HTMLDialogElement>();
  /** What each key does here, where it does anything now. */
  const pressed: Readonly<Partial<Record<CounterKey, () => unknown>>> = {
    F2: () => !slip.isEmpty && goto('/counter/pay'),
    'Shift + F9': showLastReceipt,
    F9: () => !slip.isEmpty && payExactly(),
    F4: () => (!slip.isEmpty || slip.current.kept !== undefined) && putAside(),
    F8: () => goto('/waiting'),
  };
  function onkeydown(event: KeyboardEvent): void {
    const isTyping = event.target instanceof HTMLInputElement;
    const key = keyOf(event);
    const does = pressed[key as CounterKey];
    if (does !== undefined) {
      late.inTurn(does);
    } else if (key === '/' && !isTyping) field?.focus();
    else if (key === '?' && (!isTyping || typed === '')) keyList?.showModal();
    else if (
      isDesk &&
      !isTyping &&
      event.key.length === 1 &&
      /[\p{L}\p{N}]/u.test(event.key) &&
      !event.ctrlKey &&
      !event.metaKey &&
      !event.altKey
    ) {
      // A scanner, or somebody who simply types: it goes to the entry line.
      field?.focus();
      return;
    } else return;
    event.preventDefault();
  }

  $effect(() => {
    if (isDesk) field?.focus();
  });

  let swipeFrom: { x: number; y: number } | null = null;
  function swipeTo(event: PointerEvent): void {
    if (swipeFrom === null || event.pointerType === 'mouse') return;
    const [dx, dy] = [event.clientX - swipeFrom.x, event.clientY - swipeFrom.y];
    swipeFrom = null;
    if (Math.abs(dx) < 70 || Math.abs(dy) > Math.abs(dx) / 2) return;
    table.turn(dx < 0 ? 1 : -1);
  }
</script>

<svelte:window {onkeydown} />

<h1 class="sr-only">Counter</h1>
<div class="counter grid min-h-0 flex-1">
  <SlipPaper
    class="slip-area"
    onquantity={setQuantity}
    onexact={() => late.inTurn(payExactly)}
    onaside={() => late.inTurn(putAside)}
    bind:moreDialog
  />

  <div
    class="cloth table-area flex min-h-0 min-w-0 flex-col gap-3 px-3 pt-6 md:px-4.5 md:pt-6.5"
    role="presentation"
    onpointerdown={(event) => (swipeFrom = { x: event.clientX, y: event.clientY })}
    onpointerup={swipeTo}
    onpointercancel={() => (swipeFrom = null)}
  >
    <EntryLine
      bind:typed
      bind:field
      {understood}
      {isReady}
      isWaiting={late.isWaiting}
      {money}
      ondo={doEntry}
      onscan={() => (isScanning = true)}
    />
    {#if late.notOnSlip.length > 0}
      <div class="sheet border-error border-l-8" role="alert">
        <p>Typed before the goods were read, and not on the slip: {quoted(late.notOnSlip)}.</p>
        <div class="mt-2 flex flex-wrap gap-2">
          <button
            type="button"
            class="btn btn-quiet"
            onclick={() => late.add(...late.takeNotOnSlip().map((text) => entered(text)))}
            >Enter now</button
          >
          <button type="button" class="btn btn-quiet" onclick={() => late.takeNotOnSlip()}
            >Leave off</button
          >
        </div>
      </div>
    {/if}
    {#if !canSell}
      <p class="sheet border-accent border-l-8">
        {stall.event === undefined
          ? 'No event is on today, so nothing can be rung up.'
          : 'This event is not trading; what you tap stays on the slip but cannot be rung up.'}
        <a class="plain" href="/">See what comes next</a>
      </p>
    {:else if stall.drawer === undefined}
      <p class="sheet border-accent border-l-8">
        No drawer is open on this device yet. <a class="plain" href="/">Open one</a> before you take cash.
      </p>
    {/if}
    <div
      class="goods grid min-h-0 flex-1 content-start gap-2 overflow-y-auto pb-2 md:gap-3"
      data-size={table.table?.size ?? 'middle'}
      data-testid="goods"
    >
      {#each table.laidOut as { item, left, onSlip, width, other, picture } (item.id)}
        <Tag {item} {left} {onSlip} {width} {other} {picture} {money} ontap={tap} />
      {:else}
        {#if table.isRead}
          <p class="sheet col-span-full">
            No goods are laid out yet. Type a name or an amount above to sell.
          </p>
        {/if}
      {/each}
    </div>
    <div class="flex gap-1 overflow-x-auto" role="tablist" aria-label="Tables">
      {#each table.tables as { id, name } (id)}
        <button
          type="button"
          role="tab"
          aria-selected={id === table.table?.id}
          class={[
            'min-h-12 rounded-t-xl border-t-4 px-4 font-[560] whitespace-nowrap',
            id === table.table?.id ? 'bg-card border-primary' : 'soft border-transparent',
          ]}
          onclick={() => table.choose(id)}
        >
          {name}
        </button>
      {/each}
    </div>
  </div>
</div>
{#if isScanning}
  <ScanCamera
    onfound={(code) => {
      isScanning = false;
      typed = code;
      void tick().then(() => doEntry(null));
    }}
    onclose={() => (isScanning = false)}
  />
{/if}
{#if sheet !== null}
  {@const { item, quantity } = sheet}
  <ItemSheet
    {item}
    {quantity}
    items={table.all}
    onput={(chosen, many, said) => {
      put(chosen, many, said);
      sheet = null;
    }}
    onclose={() => (sheet = null)}
  />
{/if}
<KeyList bind:dialog={keyList} />

<style>
  .counter {
    grid-template: minmax(0, 1fr) auto / minmax(0, 1fr);
    grid-template-areas: 'table' 'slip';
  }
  .counter > :global(.slip-area) {
    grid-area: slip;
  }
  .goods {
    --narrow: min(6.5rem, 45%);
    --wide: 8.6rem;
    --tall: 6.4rem;
    /* As tall as the fullest tag of a row: where they are more than fit, a least height alone would cut words off. */
    grid-auto-rows: max-content;
    grid-template-columns: repeat(auto-fill, minmax(var(--narrow), 1fr));
  }
  .goods > :global(.tag) {
    min-height: var(--tall);
  }
  .goods[data-size='small'] {
    --narrow: min(5.4rem, 30%);
    --wide: 6.8rem;
    --tall: 5.4rem;
  }
  .goods[data-size='large'] {
    --narrow: min(9.5rem, 45%);
    --wide: 11.5rem;
    --tall: 8.2rem;
  }
  @media (min-width: 768px) {
    .goods {
      grid-template-columns: repeat(auto-fill, minmax(var(--wide), 1fr));
    }
  }
  .table-area {
    grid-area: table;
  }
  @media (min-width: 768px) {
    .counter {
      grid-template: minmax(0, 1fr) / minmax(17rem, 23rem) minmax(0, 1fr);
      grid-template-areas: 'slip table';
    }
    :global([data-hand='left']) .counter {
      grid-template: minmax(0, 1fr) / minmax(0, 1fr) minmax(17rem, 23rem);
      grid-template-areas: 'table slip';
    }
  }
</style>
