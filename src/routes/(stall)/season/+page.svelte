<script lang="ts">
  import { calendarText, readCalendar } from '$lib/core/formats/calendar';
  import type { Planned } from '$lib/core/formats/goods-table';
  import { newId } from '$lib/device/new-id';
  import { saveFile } from '$lib/ui/files/save-file';
  import TakeFileIn from '../forms/TakeFileIn.svelte';
  import { byDate, firstDay, lastDay } from '$lib/core/event/todays-event';
  import { behindUs, comingUp, needOf, packingOf, seasonOf, yearsOf } from '$lib/core/event/season';
  import type { Row } from '$lib/core/books/tables';
  import { eventTotals } from '$lib/device/event-totals.svelte';
  import { live } from '$lib/device/live.svelte';
  import Pennants from '$lib/ui/event/Pennants.svelte';
  import { dayWords, monthNames } from '$lib/ui/words/date-words';
  import { needWords, packingWords, stageWords } from '$lib/ui/words/event-words';
  import { stageOf } from '$lib/core/event/stage';
  import { Goods } from '../stock/goods.svelte';
  import { useStall } from '../stall.svelte';

  const stall = useStall();
  const { db } = stall;
  const money = $derived(stall.money);
  const totals = eventTotals(db);
  const today = $derived(stall.today);
  const years = $derived(yearsOf(stall.events, today));
  const thisYear = $derived(Number(today.slice(0, 4)));
  let chosen = $state<number | null>(null);
  const year = $derived(chosen ?? thisYear);
  const pennants = $derived(seasonOf(stall.events, year, today));
  const months = $derived(monthNames(stall.business.locale));
  const next = $derived(comingUp(stall.events, today));
  const past = $derived(behindUs(stall.events, today));
  const takings = (event: string): number => totals.value.get(event)?.takings ?? 0;
  const brought = (event: string): string => {
    const all = takings(event);
    return all === 0 ? '' : money.short(all);
  };
  const when = (event: Row<'events'>): string => {
    const [first, last] = [firstDay(event), lastDay(event)];
    if (first <= today && last >= today) return 'today';
    const { locale } = stall.business;
    return first === last
      ? dayWords(first, locale)
      : `${dayWords(first, locale)}, ${String(event.days.length)} days`;
  };
  const goods = new Goods(stall);
  const stock = live(() => () => db.books.stock.toArray(), []);
  const onHand = $derived(
    new Map(stock.value.map(({ place, item, quantity }) => [`${place} ${item}`, quantity])),
  );
  const packing = (event: string) =>
    packingOf(event, goods.lists, (place, item) => onHand.get(`${place} ${item}`) ?? 0);
  const does: Readonly<Record<ReturnType<typeof needOf>, readonly [string, string]>> = {
    pack: ['Pack', ''],
    open: ['Look at it', ''],
    sell: ['To the counter', '/counter'],
    settle: ['Look at it', ''],
    nothing: ['Look at it', ''],
  };
  function saveCalendar(): void {
    const text = calendarText(byDate(stall.events).toReversed(), stall.business.name, Date.now());
    saveFile('events.ics', 'text/calendar;charset=utf-8', text);
  }
  const readFile = (text: string): Promise<readonly Planned[] | string> => {
    const outcome = readCalendar({
      text,
      business: stall.identity.business,
      timeZone: stall.business.timeZone,
      events: stall.events,
      newId,
      today,
    });
    return Promise.resolve(outcome.ok ? outcome.planned : outcome.why);
  };
</script>

<div class="page page-wide gap-5">
  <div class="flex flex-wrap items-center justify-between gap-3">
    <h1>The season</h1>
    <div class="flex flex-wrap gap-2">
      {#if years.length > 1}
        {#each years as each (each)}
          <button
            type="button"
            class={['btn btn-quiet', each === year && '!border-primary !border-3']}
            aria-pressed={each === year}
            onclick={() => (chosen = each)}>{each}</button
          >
        {/each}
      {/if}
      <a class="btn btn-main px-6" href="/events/new">A new event</a>
    </div>
  </div>
  <div class="max-md:hidden">
    <Pennants
      {pennants}
      {brought}
      {months}
      month={year === thisYear ? Number(today.slice(5, 7)) - 1 : null}
    />
  </div>
  <div class="grid grid-cols-[minmax(0,1fr)] items-start gap-5 lg:grid-cols-[1.35fr_1fr]">
    <section class="grid gap-3" aria-labelledby="next">
      <h2 id="next">Next</h2>
      <ul class="grid gap-3" data-testid="next">
        {#each next as event (event.id)}
          {@const need = needOf(event)}
          {@const [label, path] = does[need]}
          {@const packs = need === 'pack' ? packing(event.id) : null}
          <li class="sheet flex items-center gap-4 overflow-hidden !p-0 !pr-4">
            <span class="season-mark" style:--own={event.stripe}></span>
            <div class="min-w-0 flex-1 py-3">
              <a class="plain font-[650]" href="/events/{event.id}">{event.name}</a>
              <span class="soft">{when(event)}</span>
              <p class={[need === 'pack' && 'font-[600]']}>
                {packs === null ? needWords[need] : packingWords(packs)}{takings(event.id) === 0
                  ? ''
                  : `, ${money.text(takings(event.id))} so far`}
              </p>
            </div>
            <a
              class={['btn my-2 px-4', need === 'sell' ? 'btn-main' : 'btn-quiet']}
              href={packs !== null
                ? packs.list === null
                  ? `/stock/lists/new?use=load&event=${event.id}`
                  : `/stock/lists/${packs.list}`
                : path.startsWith('/')
                  ? path
                  : `/events/${event.id}${path === '' ? '' : `/${path}`}`}
              >{packs?.isMade === false ? 'Load list' : label}</a
            >
          </li>
        {:else}
          <li class="sheet soft">
            Nothing is planned. <a class="plain" href="/events/new">A new event</a>
          </li>
        {/each}
      </ul>
    </section>
    <section class="grid gap-3" aria-labelledby="behind">
      <h2 id="behind">Behind us</h2>
      <div class="sheet">
        <table class="rows" data-testid="behind">
          <thead
            ><tr
              ><th scope="col">Event</th><th scope="col">Takings</th><th scope="col">Stands</th></tr
            ></thead
          >
          <tbody>
            {#each past as event (event.id)}
              <tr>
                <td
                  ><a class="plain" href="/events/{event.id}">{event.short}</a>
                  <span class="soft block text-sm">{when(event)}</span></td
                >
                <td class="figure">{money.figure(takings(event.id))}</td>
                <td
                  class={[
                    stageOf(event) === 'settled' ? 'text-secondary' : 'text-error font-[600]',
                  ]}
                  >{stageOf(event) === 'settled'
                    ? 'settled'
                    : `only ${stageWords[stageOf(event)]}`}</td
                >
              </tr>
            {:else}
              <tr><td colspan="3" class="soft">Nothing yet.</td></tr>
            {/each}
          </tbody>
        </table>
      </div>
    </section>
  </div>
  <details class="sheet">
    <summary class="min-h-10 cursor-pointer">As a calendar</summary>
    <div class="mt-2 grid gap-3">
      <p class="soft">
        An iCalendar file, as other calendars read and write it. An address that calendars follow by
        themselves is under Devices and account.
      </p>
      <button type="button" class="btn btn-quiet justify-self-start" onclick={saveCalendar}
        >Save all events as a calendar</button
      >
      <TakeFileIn
        label="Plan events from a calendar file"
        accept=".ics,text/calendar"
        right="event.plan"
        read={readFile}
        things={['event is', 'events are']}
      />
    </div>
  </details>
</div>
