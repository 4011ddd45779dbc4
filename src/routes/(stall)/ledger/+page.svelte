<script lang="ts">
  /** The ledger of an event for whoever keeps the books: as plain text or CSV, handed over, and what came since. */
  import { page } from '$app/state';
  import { toast } from 'svelte-sonner';
  import { firstDay } from '$lib/core/event/todays-event';
  import {
    eventLedgerSchema,
    handOverLedger,
    type EventLedger,
  } from '$lib/core/ledger/event-ledger';
  import { LEDGER_BY, type LedgerBy } from '$lib/core/ledger/ledger-by';
  import { newId } from '$lib/device/new-id';
  import { saveCsv } from '$lib/ui/files/save-csv';
  import { saveFile } from '$lib/ui/files/save-file';
  import { wrongOf } from '$lib/ui/words/answer-words';
  import { shortDayWords, timeWords } from '$lib/ui/words/date-words';
  import RightButton from '../RightButton.svelte';
  import { useStall } from '../stall.svelte';
  import ChartForm from './ChartForm.svelte';

  const stall = useStall();
  const events = $derived(
    stall.events
      .filter(({ days }) => days.length > 0)
      .toSorted((a, b) => (firstDay(a) < firstDay(b) ? 1 : -1)),
  );
  let chosen = $state(page.url.searchParams.get('event') ?? '');
  const event = $derived(events.find(({ id }) => id === chosen) ?? events[0]);
  let by = $state<LedgerBy>('day');
  let only = $state<'all' | 'new'>('all');
  let ledger = $state.raw<EventLedger | null>(null);
  let says = $state('');
  let isBusy = $state(false);
  const BY: Readonly<Record<LedgerBy, string>> = {
    day: 'by day',
    event: 'the event in one',
    shift: 'by drawer',
  };

  async function ask(of: string, group: LedgerBy, which: 'all' | 'new'): Promise<void> {
    const asked = await stall.transport.ask(
      `/api/ledger?event=${of}&by=${group}&only=${which}`,
      eventLedgerSchema,
    );
    if (of !== event?.id || group !== by || which !== only) return;
    ledger = asked.came === 'answer' ? asked.answer : null;
    says = wrongOf(
      asked,
      'No network now: a ledger is made of what all devices have sent. Come back with network.',
    );
  }
  $effect(() => {
    void stall.toSend;
    void stall.received;
    void stall.head;
    void stall.network;
    const [of, group, which] = [event?.id, by, only];
    if (of === undefined) return;
    const timer = setTimeout(() => void ask(of, group, which), 250);
    return () => clearTimeout(timer);
  });

  const nameOf = (): string =>
    `Ledger ${event?.short ?? ''} ${event === undefined ? '' : firstDay(event)}`;
  function plain(): void {
    if (ledger !== null)
      saveFile(`${nameOf()}.journal`, 'text/plain', new TextEncoder().encode(ledger.text));
  }
  function csv(): void {
    if (ledger !== null)
      saveCsv(
        nameOf(),
        ledger.lines.map((line) => ({ ...line })),
      );
  }
  async function handOver(lentBy?: string): Promise<void> {
    const [of, now, group] = [event, ledger, by];
    if (of === undefined || now === null || isBusy) return;
    isBusy = true;
    await stall.daybook.append(
      () => ({ ok: true as const, drafts: handOverLedger(newId, of.id, group, now) }),
      lentBy === undefined ? {} : { lentBy },
    );
    await stall.daybook.settle();
    isBusy = false;
    toast('Handed over. What comes later is shown as new.');
  }
</script>

<div class="page gap-5">
  <h1>Ledger</h1>
  <p class="soft max-w-2xl">
    Double entries of an event for whoever keeps the books, each with the numbers of its documents.
    What was handed over is noted, so that what comes later can be handed over by itself.
  </p>
  {#if event === undefined}
    <p class="sheet max-w-xl">There is no event yet. <a class="plain" href="/books">Books</a></p>
  {:else}
    <section class="sheet grid gap-3" aria-label="Which ledger">
      <div class="grid items-start gap-3 sm:grid-cols-3">
        <label class="grid gap-1 font-[560]">
          Event
          <select
            class="select min-h-12 w-full"
            value={event.id}
            onchange={(changed) => (chosen = changed.currentTarget.value)}
          >
            {#each events as each (each.id)}
              <option value={each.id}
                >{each.short}, {shortDayWords(firstDay(each), stall.business.locale)}</option
              >
            {/each}
          </select>
        </label>
        <label class="grid gap-1 font-[560]">
          Posted
          <select class="select min-h-12 w-full" bind:value={by}>
            {#each LEDGER_BY as each (each)}<option value={each}>{BY[each]}</option>{/each}
          </select>
        </label>
        <label class="grid gap-1 font-[560]">
          Which of it
          <select class="select min-h-12 w-full" bind:value={only}>
            <option value="all">all of it</option>
            <option value="new">what is new since it was handed over</option>
          </select>
        </label>
      </div>
      {#if says !== ''}<p role="status">{says}</p>{/if}
      {#if ledger !== null}
        <p data-testid="ledger-handed">
          {#if ledger.handed[0] === undefined}
            Never handed over.
          {:else}
            Handed over {shortDayWords(ledger.handed[0].at.slice(0, 10), stall.business.locale)}
            {timeWords(ledger.handed[0].at, stall.business.locale, stall.business.timeZone)} by {stall.nameOf(
              ledger.handed[0].by,
            )};
            {ledger.fresh === 0
              ? 'nothing has come since.'
              : `${String(ledger.fresh)} ${ledger.fresh === 1 ? 'entry has' : 'entries have'} come since.`}
          {/if}
        </p>
        <div class="flex flex-wrap gap-2">
          <button
            type="button"
            class="btn btn-quiet"
            disabled={ledger.lines.length === 0}
            onclick={plain}>Save as text</button
          >
          <button
            type="button"
            class="btn btn-quiet"
            disabled={ledger.lines.length === 0}
            onclick={csv}>Save as CSV</button
          >
          {#if ledger.lines.length > 0 && ledger.fresh > 0}
            <RightButton
              right="event.settle"
              label="Note that it was handed over"
              look="btn-quiet"
              {isBusy}
              onGo={handOver}
            />
          {/if}
        </div>
      {/if}
    </section>
    {#if ledger !== null}
      <section class="sheet overflow-x-auto" aria-label="Postings">
        <table class="rows" data-testid="ledger">
          <thead
            ><tr
              ><th scope="col">Day</th><th scope="col" class="!text-left">Account</th><th
                scope="col">Debit</th
              ><th scope="col">Credit</th><th scope="col" class="!text-left max-sm:hidden"
                >Documents</th
              ></tr
            ></thead
          >
          <tbody>
            {#each ledger.lines.slice(0, 400) as line, at (at)}
              <tr>
                <td>{shortDayWords(line.date, stall.business.locale)}</td>
                <td class="!text-left"
                  >{line.account.replaceAll(':', ' › ')}
                  <span class="soft block text-sm">{line.number}</span></td
                >
                <td class="figure">{line.debit}</td>
                <td class="figure">{line.credit}</td>
                <td class="soft !text-left text-sm max-sm:hidden">{line.documents.slice(0, 80)}</td>
              </tr>
            {:else}
              <tr
                ><td colspan="5" class="soft">Nothing{only === 'new' ? ' new' : ''} to post.</td
                ></tr
              >
            {/each}
          </tbody>
        </table>
        {#if ledger.lines.length > 400}
          <p class="soft">and {ledger.lines.length - 400} more, in the files.</p>
        {/if}
      </section>
    {/if}
    <ChartForm />
  {/if}
</div>
