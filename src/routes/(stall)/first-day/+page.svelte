<script lang="ts">
  import { BASE } from '$lib/core/books/tables';
  import {
    addGoods,
    loadAll,
    type FirstDayOutcome,
    type FirstDayRefusal,
  } from '$lib/core/founding/first-day';
  import { setEvent, type EventOutcome, type EventRefusal } from '$lib/core/event/plan-event';
  import { stageOf } from '$lib/core/event/stage';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import { eventFault } from '$lib/ui/words/event-words';
  import { firstDayWords } from '$lib/ui/words/first-day-words';
  import { quantityWords } from '$lib/ui/words/money-words';
  import { useStall } from '../stall.svelte';

  const stall = useStall();
  const { db } = stall;
  const items = live(() => () => db.books.items.toArray(), []);
  const tables = live(() => () => db.books.tables.orderBy('id').toArray(), []);
  const stock = live(() => () => db.books.stock.toArray(), []);
  const event = $derived(stall.event);
  const isLoaded = $derived(event !== undefined && stageOf(event) !== 'planned');
  /** What there is to sell: at home, or at the event once it has been loaded. */
  const toSell = (item: string): number =>
    stock.value
      .filter((row) => row.item === item && (row.place === BASE || row.place === event?.id))
      .reduce((sum, { quantity }) => sum + quantity, 0);

  let name = $state('');
  let price = $state('');
  let count = $state('');
  let tax = $state('');
  let nameField = $state<HTMLInputElement>();
  let eventName = $state('');
  let place = $state('');
  let date = $state('');
  let opens = $state('09:00');
  let closes = $state('16:00');
  let wrong = $state.raw<FirstDayRefusal | EventRefusal | null>(null);
  $effect(() => {
    date ||= stall.today;
  });

  async function keep(command: () => FirstDayOutcome | EventOutcome): Promise<boolean> {
    const outcome = await stall.daybook.append(command);
    wrong = outcome.ok || outcome.refusal.code === 'slip/gone' ? null : outcome.refusal;
    return outcome.ok;
  }

  async function add(): Promise<void> {
    // As it stood when it was tapped: the next one may be typed before this one is written.
    const said = { name, price, count };
    const isKept = await keep(() =>
      addGoods({
        newId,
        ...said,
        currency: stall.business.currency,
        tax: tax === '' ? null : tax,
        items: items.value,
        table: tables.value[0],
      }),
    );
    if (!isKept || name !== said.name || price !== said.price || count !== said.count) return;
    [name, price, count] = ['', '', ''];
    nameField?.focus();
    await stall.daybook.settle();
  }

  const plan = (): Promise<boolean> =>
    keep(() =>
      setEvent(
        newId,
        null,
        {
          ...{ name: eventName, short: '', organiser: '', place, pitch: '', notes: '' },
          days: [{ date, opens, closes }],
          timeZone: stall.business.timeZone,
          ...{ stripe: '#1c684c', cloth: '#fffaf0' },
        },
        stall.events,
      ),
    );

  async function load(): Promise<void> {
    if (event === undefined) return;
    const { id } = event;
    // Decided by the rows as they are: a second tap, or another window, finds it packed.
    await stall.daybook.decide(
      async () => ({ event: await db.books.events.get(id), stock: await db.books.stock.toArray() }),
      (found) => {
        const stage = found.event === undefined ? 'planned' : stageOf(found.event);
        return { ok: true, drafts: loadAll(newId, id, stage, found.stock) };
      },
    );
  }
</script>

<div class="page page-text gap-5">
  <h1>{stall.business.name}: the first day</h1>
  {#if wrong !== null}<p class="sheet border-error text-error border-l-8" role="alert">
      {'field' in wrong ? eventFault(wrong).says : firstDayWords(wrong, stall.money)}
    </p>{/if}

  <section class="sheet grid gap-3" aria-labelledby="goods">
    <h2 id="goods">1 · What you sell</h2>
    {#if items.value.length > 0}
      <ul class="grid" data-testid="goods-list">
        {#each items.value as item (item.id)}
          <li
            class="border-base-300 flex flex-wrap justify-between gap-3 border-b py-2 last:border-0"
          >
            <span class="min-w-0 break-words">{item.name}</span>
            <span class="figure"
              >{stall.money.text(item.price)} · {quantityWords(toSell(item.id), item.unit)} there</span
            >
          </li>
        {/each}
      </ul>
    {:else}
      <p class="soft">Two or three things are enough to begin with; more can follow at any time.</p>
    {/if}
    <form
      class="grid items-end gap-3 sm:grid-cols-[2fr_1fr_1fr]"
      onsubmit={(submitted) => {
        submitted.preventDefault();
        void add();
      }}
    >
      <label class="grid gap-1 font-[560]"
        >Name<input
          class="input w-full"
          bind:this={nameField}
          bind:value={name}
          maxlength="80"
        /></label
      >
      <label class="grid gap-1 font-[560]"
        >Price<input class="input figure w-full" bind:value={price} inputmode="decimal" /></label
      >
      <label class="grid gap-1 font-[560]"
        >How many there are<input
          class="input figure w-full"
          bind:value={count}
          inputmode="numeric"
        /></label
      >
      {#if stall.taxes.length > 0}
        <label class="grid gap-1 font-[560] sm:col-span-2"
          >Tax<select class="select min-h-12 w-full" bind:value={tax}>
            <option value="">none</option>
            {#each stall.taxes as each (each.id)}
              <option value={each.id}>{each.name} ({each.rate} %)</option>
            {/each}
          </select></label
        >
      {/if}
      <div class="flex flex-wrap items-center gap-4 sm:col-span-full">
        <button class="btn btn-quiet">Add it</button>
        <a class="plain" href="/items">or take them all in from a file</a>
      </div>
    </form>
  </section>

  <section class="sheet grid gap-3" aria-labelledby="where">
    <h2 id="where">2 · Where you sell it</h2>
    {#if event !== undefined}
      <p data-testid="the-event">
        {event.name}, today from {event.days[0]?.opens} to {event.days[0]?.closes}
      </p>
    {:else}
      <form
        class="grid items-end gap-3 sm:grid-cols-2"
        onsubmit={(submitted) => {
          submitted.preventDefault();
          void plan();
        }}
      >
        <label class="grid gap-1 font-[560]"
          >Market or fair<input class="input w-full" bind:value={eventName} maxlength="80" /></label
        >
        <label class="grid gap-1 font-[560]"
          >Place<input class="input w-full" bind:value={place} maxlength="120" /></label
        >
        <label class="grid gap-1 font-[560]"
          >Day<input class="input w-full" type="date" bind:value={date} /></label
        >
        <div class="grid grid-cols-2 gap-3">
          <label class="grid gap-1 font-[560]"
            >Opens<input class="input w-full" type="time" bind:value={opens} /></label
          >
          <label class="grid gap-1 font-[560]"
            >Closes<input class="input w-full" type="time" bind:value={closes} /></label
          >
        </div>
        <button class="btn btn-quiet justify-self-start">Add the event</button>
      </form>
    {/if}
  </section>

  <section class="sheet grid gap-3" aria-labelledby="take">
    <h2 id="take">3 · Take it there</h2>
    {#if isLoaded}
      <p>Loaded. All that is missing now is the float.</p>
      <a class="btn btn-main justify-self-start px-6" href="/drawer/open">Open the drawer</a>
    {:else}
      <p class="soft">Everything that is at the base goes into the van.</p>
      <button
        type="button"
        class="btn btn-quiet justify-self-start"
        disabled={event === undefined || items.value.length === 0}
        onclick={load}>Load it all</button
      >
    {/if}
  </section>
</div>
