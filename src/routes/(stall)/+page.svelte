<script lang="ts">
  import { stageOf } from '$lib/core/event/stage';
  import { lateCash } from '$lib/core/drawer/expected-cash';
  import { readNumber } from '$lib/core/sale/sale-number';
  import { eventRows } from '$lib/device/event-rows';
  import { live } from '$lib/device/live.svelte';
  import Bunting from '$lib/ui/event/Bunting.svelte';
  import HourChart from '$lib/ui/event/HourChart.svelte';
  import { dayWords, timeWords } from '$lib/ui/words/date-words';
  import NextStep from './NextStep.svelte';
  import TodaysOrders from './TodaysOrders.svelte';
  import { useStall } from './stall.svelte';

  const stall = useStall();
  const { db } = stall;
  const money = $derived(stall.money);
  const event = $derived(stall.event);
  const rows = live(() => {
    const id = stall.event?.id;
    return () => (id === undefined ? null : eventRows(db, id));
  }, null);
  const sums = live(() => () => db.books.drawerSums.toArray(), []);
  const totals = $derived(rows.value?.totals);
  const locale = $derived(stall.business.locale);
  const todaysDay = $derived(
    // In the night it is still the day that began it; of one that was chosen by hand, the first.
    event?.days.findLast(({ date }) => date <= stall.today) ?? event?.days[0],
  );
</script>

<div class="page gap-6">
  {#if event === undefined}
    <section class="sheet max-w-xl">
      <h1>No event today</h1>
      <p class="mt-3">
        {stall.business.name} has nothing in the calendar for {dayWords(stall.today, locale)}. Past
        events and their takings are in the books.
      </p>
      <div class="mt-4 flex flex-wrap gap-3">
        {#if stall.may('set-up')}<a class="btn btn-main px-6" href="/first-day">Make one</a>{/if}
        <a class="btn btn-quiet" href="/season">The season</a>
        <a class="btn btn-quiet" href="/books">Look at the books</a>
      </div>
    </section>
    {#if stall.eventsNear.length > 0}
      <section class="sheet grid max-w-xl gap-3" aria-labelledby="near">
        <h2 id="near">Or are you at one of these?</h2>
        <p>
          This device’s clock says it is {dayWords(stall.today, locale)}. If that is wrong, set it
          right; you can sell all the same.
        </p>
        <ul class="grid gap-2">
          {#each stall.eventsNear as near (near.id)}
            <li class="flex flex-wrap items-center justify-between gap-3">
              <span>{near.name}, {dayWords(near.days[0]?.date ?? '', locale)}</span>
              <button type="button" class="btn btn-quiet" onclick={() => stall.chooseEvent(near)}
                >Sell at this event</button
              >
            </li>
          {/each}
        </ul>
      </section>
    {/if}
  {:else}
    <div class="grid grid-cols-[minmax(0,1fr)] items-end gap-4 lg:grid-cols-[1fr_1.2fr]">
      <div>
        <h1>{event.name}</h1>
        <p class="soft">
          {dayWords(todaysDay?.date ?? '', locale)}, {todaysDay?.opens} to {todaysDay?.closes} · pitch
          {event.pitch}
          · {event.place}
        </p>
      </div>
      <Bunting stage={stageOf(event)} />
    </div>

    {#if stall.isChosenByHand}
      <p class="sheet border-accent flex flex-wrap items-center justify-between gap-3 border-l-8">
        <span
          >This event was chosen by hand; by this device’s clock it is {dayWords(
            stall.today,
            locale,
          )}.</span
        >
        <button type="button" class="btn btn-quiet" onclick={() => stall.chooseEvent(null)}
          >As the calendar says</button
        >
      </p>
    {/if}
    <NextStep {event} />
    <TodaysOrders event={event.id} />

    <div class="grid grid-cols-[minmax(0,1fr)] gap-4 lg:grid-cols-[1.2fr_1fr]">
      <section class="sheet" aria-labelledby="so-far">
        <div class="mb-3 flex flex-wrap items-baseline justify-between gap-3">
          <h2 id="so-far">Takings so far</h2>
          <a class="plain" href="/events/{event.id}">The event’s page</a>
        </div>
        <p class="mb-3 flex flex-wrap items-baseline gap-x-4">
          <span class="amount text-4xl" data-testid="takings"
            >{money.text(totals?.takings ?? 0)}</span
          >
          <span class="soft" data-testid="sales"
            >{totals?.sales ?? 0}
            {totals?.sales === 1 ? 'sale' : 'sales'} · {totals?.units ?? 0} things</span
          >
        </p>
        <HourChart hours={rows.value?.hours ?? []} {money} />
      </section>
      <section class="sheet" aria-labelledby="drawers">
        <h2 id="drawers" class="mb-3">Drawers</h2>
        <ul class="grid gap-3">
          {#each stall.drawers as drawer (drawer.id)}
            {@const read = stall.reads.find((each) => each.drawer === drawer.id)}
            {@const isOurs = drawer.id === stall.drawer?.id}
            <li class="border-base-300 grid gap-1 border-b pb-3 last:border-0">
              <div class="flex flex-wrap items-baseline justify-between gap-2">
                <b>{drawer.name}</b>
                <span class="soft"
                  >opened {timeWords(drawer.at, locale, event.timeZone)} by {stall.nameOf(
                    drawer.by,
                  )}</span
                >
              </div>
              {#if read}
                {@const device = stall.devices.find(({ id }) => id === read.device)}
                <span>
                  Final read {readNumber(device?.number ?? 0, read.number)}: {money.text(
                    read.counted,
                  )} counted,
                  <b class={read.difference === 0 ? '' : 'text-error'}
                    >{money.off(read.difference)}</b
                  >
                </span>
                {@const since = lateCash(
                  drawer,
                  sums.value.find((row) => row.drawer === drawer.id),
                  stall.reads.filter((each) => each.drawer === drawer.id),
                )}
                {#if since !== 0}
                  <span class="text-error"
                    >{money.text(Math.abs(since))}
                    {since > 0 ? 'more' : 'less'} was heard of after the count:
                    <a class="plain" href="/loose-ends">a loose end</a>.</span
                  >
                {/if}
              {:else}
                <span class="flex flex-wrap items-center justify-between gap-2">
                  <span
                    >float {money.text(drawer.float)}{isOurs ? ' · this device uses it' : ''}</span
                  >
                  {#if !isOurs}
                    <button
                      type="button"
                      class="btn btn-quiet"
                      onclick={() => stall.useDrawer(event.id, drawer.id)}>Use it here</button
                    >
                  {/if}
                </span>
              {/if}
            </li>
          {:else}
            <li class="soft">None yet. A drawer holds the float, and what is taken in cash.</li>
          {/each}
        </ul>
        {#if stall.drawers.length > 0}
          <div class="mt-3 flex flex-wrap gap-2">
            <a class="btn btn-quiet" href="/drawer">Cash in and out</a>
            {#if stageOf(event) === 'trading'}
              <a class="btn btn-quiet" href="/drawer/open">Open another drawer</a>
            {/if}
          </div>
        {/if}
      </section>
    </div>
  {/if}
</div>
