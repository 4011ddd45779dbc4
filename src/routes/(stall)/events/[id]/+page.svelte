<script lang="ts">
  import { page } from '$app/state';
  import { NOBODY, SERVICE, UPLIFT, type Row } from '$lib/core/books/tables';
  import { stageOf } from '$lib/core/event/stage';
  import { itemName } from '$lib/core/goods/item-name';
  import { isRecent, recentSince } from '$lib/core/event/recent';
  import {
    differencesBetween,
    promotedIn,
    takingsOf,
    type EventTakings,
  } from '$lib/core/event/takings';
  import type { Column } from '$lib/core/list/list-view';
  import { wayNameOf } from '$lib/ui/words/way-words';
  import { readNumber } from '$lib/core/sale/sale-number';
  import { eventRows } from '$lib/device/event-rows';
  import { asked } from '$lib/device/asked.svelte';
  import { live } from '$lib/device/live.svelte';
  import HourChart from '$lib/ui/event/HourChart.svelte';
  import List from '$lib/ui/list/List.svelte';
  import { wrongOf } from '$lib/ui/words/answer-words';
  import { dayWords } from '$lib/ui/words/date-words';
  import { counted, leftWords, quantityWords } from '$lib/ui/words/money-words';
  import { useStall } from '../../stall.svelte';
  import EventBring from './EventBring.svelte';
  import EventGoods from './EventGoods.svelte';
  import EventStage from './EventStage.svelte';
  import EventTaxes from './EventTaxes.svelte';
  import EventWays from './EventWays.svelte';
  import { askTakings, type ServerTakings } from './ask-takings';

  const stall = useStall();
  const { db } = stall;
  const money = $derived(stall.money);
  const id = $derived(page.params.id ?? '');
  const event = $derived(stall.events.find((each) => each.id === id));
  const rows = live(() => {
    const wanted = id;
    return () => eventRows(db, wanted);
  }, null);
  const items = live(
    () => async () => new Map((await db.books.items.toArray()).map((item) => [item.id, item])),
    new Map(),
  );
  const reads = live(() => {
    const wanted = id;
    return () => db.books.drawerReads.where('event').equals(wanted).toArray();
  }, []);
  const ours = $derived<EventTakings | null>(rows.value === null ? null : takingsOf(rows.value));
  /** Of events that are long past this device keeps no figures: the server has them. */
  const isHere = $derived(event === undefined || isRecent(event, recentSince(Date.now())));

  // Asked again whenever something was sent or came in, so that the two can be held together.
  const asks = asked<ServerTakings>(
    () => {
      void [ours, stall.toSend, stall.received, stall.network];
      const of = id;
      return { of, ask: () => askTakings(stall.transport, of), after: 250 };
    },
    { is: 'asking' },
  );
  const server = $derived(asks.value);
  const figures = $derived(isHere ? ours : server.is === 'there' ? server.takings : null);
  /** Paid by points and rewards. */
  const promoted = $derived(promotedIn(figures?.ways ?? [], stall.wayRows));
  const differences = $derived(
    isHere && ours !== null && server.is === 'there'
      ? differencesBetween(ours, server.takings)
      : [],
  );

  const dayList = $derived(
    (event?.days ?? [])
      .map(
        ({ date, opens, closes }) =>
          `${dayWords(date, stall.business.locale)}, ${opens} to ${closes}`,
      )
      .join(' · '),
  );

  /** What is brought is looked at while it is packed. */
  const isToCome = $derived(event !== undefined && ['planned', 'packed'].includes(stageOf(event)));
  type Sold = EventTakings['items'][number];
  const itemOf = (id: string): Row<'items'> | null => items.value.get(id) ?? null;
  const unitOf = (id: string): string => itemOf(id)?.unit ?? '';
  const soldColumns: readonly Column<Sold>[] = [
    { key: 'item', head: 'Item', is: 'text', value: ({ item }) => calledOf(item) },
    {
      key: 'sold',
      head: 'Sold',
      is: 'figure',
      value: ({ sold }) => sold / 1000,
      show: ({ item, sold }) => quantityWords(sold, unitOf(item)),
    },
    {
      key: 'left',
      head: 'Left',
      is: 'figure',
      value: ({ left }) => (left === null ? null : left / 1000),
      show: ({ item, left }) => leftWords(left, unitOf(item)),
    },
    {
      key: 'takings',
      head: 'Takings',
      is: 'figure',
      value: ({ takings }) => Number(money.plain(takings)),
      show: ({ takings }) => money.figure(takings),
    },
  ];
  /** What is charged beside the goods stands among them. */
  const BESIDE: Readonly<Record<string, string>> = {
    [SERVICE]: 'Service charge',
    [UPLIFT]: 'Card prices above cash prices',
  };
  const wayName = (way: string): string => wayNameOf(way, stall.wayRows);
  const calledOf = (id: string): string => BESIDE[id] ?? nameOf(itemOf(id));
  const nameOf = (item: { name: string; detail: string } | null): string =>
    item === null ? 'Not listed' : itemName(item);
</script>

<div class="page gap-5">
  {#if event === undefined}
    <p class="sheet max-w-xl">
      There is no such event on this device. <a class="plain" href="/books">All events</a>
    </p>
  {:else}
    <div class="grid grid-cols-[minmax(0,1fr)] items-start gap-4 lg:grid-cols-[1fr_1.2fr]">
      <div>
        <h1>{event.name}</h1>
        <p class="soft">
          {dayList} · pitch {event.pitch}
        </p>
        <a class="btn btn-quiet mt-2" href="/events/{event.id}/plan">Where and when …</a>
        {#if !isToCome}
          <a class="btn btn-quiet mt-2" href="/events/{event.id}/settle">Settle …</a>
        {/if}
      </div>
      {#key event.backStamp}<EventStage {event} />{/key}
    </div>
    <EventGoods {event} />
    {#if isToCome}<EventBring {event} />{/if}

    <div class="grid grid-cols-[minmax(0,1fr)] gap-4 lg:grid-cols-2">
      <section class="sheet" aria-labelledby="takings">
        <h2 id="takings">Takings</h2>
        <p class="amount my-2 text-5xl" data-testid="event-takings">
          {money.text(figures?.takings ?? 0)}
        </p>
        <p class="soft" data-testid="event-sales">
          {figures?.sales ?? 0}
          {figures?.sales === 1 ? 'sale' : 'sales'} · {figures?.units ?? 0} things · tax {money.text(
            figures?.tax ?? 0,
          )}
        </p>
        <table class="rows mt-3">
          <thead
            ><tr><td></td><th scope="col">This device</th><th scope="col">Server</th></tr></thead
          >
          <tbody>
            {#each ['takings', 'tax', 'sales', 'units'] as const as figure (figure)}
              {@const text = (value: number) =>
                figure === 'takings' || figure === 'tax' ? money.figure(value) : String(value)}
              <tr>
                <td class="capitalize">{figure === 'units' ? 'things' : figure}</td>
                <td class="figure" data-testid="device-{figure}"
                  >{isHere ? text(ours?.[figure] ?? 0) : '–'}</td
                >
                <td class="figure" data-testid="server-{figure}"
                  >{server.is === 'there' ? text(server.takings[figure]) : '–'}</td
                >
              </tr>
            {/each}
          </tbody>
        </table>
        <p class="mt-3 font-[600]" role="status" data-testid="ties-up">
          {#if server.is === 'asking'}<span class="soft">Asking the server …</span>
          {:else if server.is === 'away'}<span class="soft"
              >{wrongOf(
                server.asked,
                'No network.',
                isHere
                  ? 'The device’s own figures are shown.'
                  : 'The figures of an event so long past are on the server.',
              )}</span
            >
          {:else if !isHere}<span class="soft"
              >It is long past: these are the server’s figures.</span
            >
          {:else if differences.length === 0}<span class="text-secondary"
              >Device and server agree on every figure.</span
            >
          {:else if stall.toSend > 0}<span
              >{counted(stall.toSend, 'entry', 'entries')} still to be sent; then the server has {stall.toSend ===
              1
                ? 'it'
                : 'them'} too.</span
            >
          {:else}<span class="text-error"
              >{counted(differences.length, 'figure')} not the same; the other devices may still be sending.</span
            >{/if}
        </p>
      </section>
      <section class="sheet" aria-labelledby="hours">
        <h2 id="hours" class="mb-3">By the hour</h2>
        <HourChart hours={figures?.hours ?? []} {money} />
        {#if reads.value.length > 0}
          <h2 class="mt-5 mb-1">Final reads</h2>
          <table class="rows">
            <thead
              ><tr
                ><td></td><th scope="col">Should be</th><th scope="col">Is</th><th scope="col"
                  >Difference</th
                ></tr
              ></thead
            >
            <tbody>
              {#each reads.value as read (read.id)}
                <tr>
                  <td
                    >{readNumber(
                      stall.devices.find((device) => device.id === read.device)?.number ?? 0,
                      read.number,
                    )}
                    {#if read.reason !== ''}<span class="soft block text-sm">{read.reason}</span
                      >{/if}</td
                  >
                  <td class="figure">{money.figure(read.expected)}</td>
                  <td class="figure">{money.figure(read.counted)}</td>
                  <td class={['figure font-[650]', read.difference !== 0 && 'text-error']}
                    >{read.difference === 0 ? 'ties up' : money.off(read.difference)}</td
                  >
                </tr>
              {/each}
            </tbody>
          </table>
        {/if}
      </section>
    </div>

    <section class="sheet" aria-labelledby="ways">
      <h2 id="ways" class="mb-2">By way to pay</h2>
      <table class="rows" data-testid="ways">
        <thead
          ><tr
            ><th scope="col">Way</th><th scope="col">Parts</th><th scope="col">Takings</th><th
              scope="col">Surcharge</th
            ><th scope="col">Tips</th></tr
          ></thead
        >
        <tbody>
          {#each figures?.ways ?? [] as row (row.way)}
            <tr>
              <td>{wayName(row.way)}</td>
              <td class="figure">{row.parts}</td>
              <td class="figure">{money.figure(row.takings)}</td>
              <td class="figure">{money.figure(row.surcharge)}</td>
              <td class="figure">{money.figure(row.tips)}</td>
            </tr>
          {:else}
            <tr><td colspan="5" class="soft">Nothing has been paid yet.</td></tr>
          {/each}
        </tbody>
      </table>
      {#if (figures?.paidIn ?? 0) !== 0}
        <p class="soft mt-2" data-testid="paid-in">
          {money.text(figures?.paidIn ?? 0)} of it was paid in: vouchers that were sold, credit, what
          customers owed. It is no takings.
        </p>
      {/if}
      {#if promoted !== 0}
        <p class="soft mt-2" data-testid="promoted">
          {money.text(promoted)} of it was paid by points and rewards, which are given: it is no takings.
        </p>
      {/if}
      {#if (figures?.tips ?? []).length > 0}
        <p class="soft mt-2" data-testid="tips-by-seller">
          Tips: {figures?.tips
            .map(
              (row) =>
                `${row.seller === NOBODY ? 'nobody signed in' : stall.nameOf(row.seller)} ${money.text(row.tips)}`,
            )
            .join(' · ')}
        </p>
      {/if}
    </section>

    <section class="sheet" aria-labelledby="items">
      <h2 id="items" class="mb-2">Item by item</h2>
      <List
        name="Items of {event.name}"
        testid="items"
        rows={figures?.items ?? []}
        columns={soldColumns}
        keyOf={({ item }) => item}
        order={{ column: 'takings', isDown: true }}
        empty="Nothing was brought and nothing sold yet."
        looks={({ left }, column) =>
          column === 'left' && left !== null && left < 0 ? 'text-error font-[650]' : ''}
      />
    </section>

    <div class="grid grid-cols-[minmax(0,1fr)] gap-4 lg:grid-cols-2">
      {#key event.waysStamp}<EventWays {event} />{/key}
      {#key event.taxesStamp}<EventTaxes {event} />{/key}
    </div>
    {#if !isToCome}<EventBring {event} />{/if}
  {/if}
</div>
