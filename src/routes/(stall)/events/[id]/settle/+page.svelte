<script lang="ts">
  /** Settling an event: at nine in the evening one sees whether it ties up, and where it does not, why. */
  import { toast } from 'svelte-sonner';
  import { page } from '$app/state';
  import { stageOf } from '$lib/core/event/stage';
  import { settleEvent } from '$lib/core/settle/settle-event';
  import { newId } from '$lib/device/new-id';
  import Bunting from '$lib/ui/event/Bunting.svelte';
  import HourChart from '$lib/ui/event/HourChart.svelte';
  import { dayWords, timeWords } from '$lib/ui/words/date-words';
  import { settleEventWords } from '$lib/ui/words/settle-words';
  import RightButton from '../../../RightButton.svelte';
  import { useStall } from '../../../stall.svelte';
  import CardsPanel from './CardsPanel.svelte';
  import EndCard from '../../../loose-ends/EndCard.svelte';
  import EditionsPanel from './EditionsPanel.svelte';
  import JoinLine from './JoinLine.svelte';
  import MakersPanel from './MakersPanel.svelte';
  import PayPanel from './PayPanel.svelte';
  import ResultPanel from './ResultPanel.svelte';
  import SettleTable from './SettleTable.svelte';
  import ShareTips from './ShareTips.svelte';
  import { AskedSettling, settleNames } from './settling.svelte';

  const stall = useStall();
  const money = $derived(stall.money);
  const id = $derived(page.params.id ?? '');
  const event = $derived(stall.events.find((each) => each.id === id));
  const asked = new AskedSettling(stall, () => id);
  const names = settleNames(stall, () => event?.timeZone ?? stall.business.timeZone);
  const settling = $derived(asked.now);
  const changed = $derived(
    settling?.settled !== null &&
      settling?.ends.some(({ code }) => code === 'settled/changed') === true,
  );
  /** Tax that is due and in no takings yet, or was due before. */
  const ofVouchers = $derived(
    settling?.balances.find(({ account }) => account === 'prepaid-tax')?.amount ?? 0,
  );
  /** Taken at another event than it was sold at: here for others below nothing, for here above. */
  const elsewhere = $derived(
    settling?.balances.find(({ account }) => account === 'elsewhere')?.amount ?? 0,
  );
  let wrong = $state('');

  async function settle(lentBy?: string): Promise<void> {
    // As it is now: what came a moment ago is in it, or is loose.
    await asked.ask();
    const now = asked.now;
    if (now === null) {
      wrong = asked.says;
      return;
    }
    const { toSend } = stall;
    const isAddendum = now.settled !== null;
    wrong = await asked.write(
      () => settleEvent({ newId, event: id, settling: now, toSend, isAddendum }),
      settleEventWords,
      lentBy,
    );
    if (wrong === '') toast(`${event?.short ?? 'The event'} is settled.`);
  }
</script>

<div class="page gap-5">
  {#if event === undefined}
    <p class="sheet max-w-xl">
      There is no such event on this device. <a class="plain" href="/books">All events</a>
    </p>
  {:else}
    <div class="grid grid-cols-[minmax(0,1fr)] items-end gap-4 lg:grid-cols-[1fr_1.2fr]">
      <div>
        <h1>{event.name}</h1>
        <p class="soft">
          {dayWords(event.days[0]?.date ?? '', stall.business.locale)}
          {#if settling !== null}
            · {money.text(settling.result.takings)} ·
            <span data-testid="loose-count"
              >{settling.ends.length}
              {settling.ends.length === 1 ? 'loose end' : 'loose ends'}</span
            >{/if}
          · <a class="plain" href="/events/{event.id}">The event’s page</a>
          · <a class="plain" href="/ledger?event={event.id}">Its ledger</a>
        </p>
      </div>
      <Bunting stage={stageOf(event)} />
    </div>
    {#if asked.says !== ''}
      <p class="sheet border-accent border-l-8" role="status">{asked.says}</p>
    {/if}
    {#if settling === null}
      {#if asked.says === ''}<p class="soft">Working it out …</p>{/if}
    {:else}
      <div class="grid grid-cols-[minmax(0,1fr)] items-start gap-4 lg:grid-cols-[1.2fr_1fr]">
        <div class="grid grid-cols-[minmax(0,1fr)] gap-4">
          <SettleTable {event} {settling} {names} />
          {#if elsewhere !== 0}
            <p class="sheet" data-testid="elsewhere">
              {elsewhere < 0
                ? `${money.text(-elsewhere)} was taken here for sales of other events: it is in the drawers and ways above, and not in these takings.`
                : `${money.text(elsewhere)} of the takings was taken at other events: it is in no drawer or way here.`}
            </p>
          {/if}
          <CardsPanel {event} {settling} />
          <section class="sheet" aria-labelledby="by-hour">
            <h2 id="by-hour" class="mb-2">Takings by the hour</h2>
            <HourChart hours={settling.hours} {money} />
          </section>
          <ResultPanel result={settling.result} {names} />
          {#if settling.result.before.length > 0}
            <EditionsPanel event={id} day={event.days[0]?.date ?? ''} result={settling.result} />
          {/if}
          <section class="sheet" aria-labelledby="taxes">
            <h2 id="taxes" class="mb-2">Tax</h2>
            <table class="rows">
              <thead
                ><tr
                  ><th scope="col">Tax</th><th scope="col">Rate</th><th scope="col">On</th><th
                    scope="col">Tax</th
                  ></tr
                ></thead
              >
              <tbody>
                {#each settling.taxes as tax (`${tax.tax} ${tax.rate}`)}
                  <tr>
                    <td>{stall.taxes.find((each) => each.id === tax.tax)?.name ?? 'A tax'}</td>
                    <td class="figure">{tax.rate} %</td>
                    <td class="figure">{money.figure(tax.base)}</td>
                    <td class="figure">{money.figure(tax.amount)}</td>
                  </tr>
                {:else}
                  <tr><td colspan="4" class="soft">None was taken.</td></tr>
                {/each}
              </tbody>
            </table>
            {#if ofVouchers !== 0}
              <p class="soft mt-2" data-testid="prepaid-tax">
                {ofVouchers > 0
                  ? `${money.text(ofVouchers)} of it is of vouchers that were sold here with their tax: it is in no takings until they are spent.`
                  : `The takings have ${money.text(-ofVouchers)} more: vouchers paid that were sold before, with their tax.`}
              </p>
            {/if}
          </section>
        </div>
        <div class="grid grid-cols-[minmax(0,1fr)] gap-4">
          <section class="grid grid-cols-[minmax(0,1fr)] gap-3" aria-labelledby="ends">
            <h2 id="ends">Loose ends</h2>
            {#each settling.ends as end (end.looseEnd)}
              <EndCard
                {end}
                {names}
                hand={settling.hands.find(({ looseEnd }) => looseEnd === end.looseEnd)}
              >
                {#if end.code === 'card/odd' && (end.odd.is === 'unknown' || end.odd.is === 'double')}
                  <JoinLine odd={end.odd} missing={settling.cards.missing} {names} />
                {/if}
              </EndCard>
            {:else}
              <p class="sheet" data-testid="nothing-loose">Nothing is loose: it all ties up.</p>
            {/each}
            {#if settling.accepted.length > 0}
              <p class="soft text-sm">
                {settling.accepted.length} accepted;
                <a class="plain" href="/loose-ends">with whose reasons</a>.
              </p>
            {/if}
          </section>
          <ShareTips event={event.id} {settling} {names} />
          <MakersPanel {event} makers={settling.makers} {names} />
          <PayPanel event={event.id} pay={settling.pay} {names} />
          <section class="sheet border-accent grid gap-3 border-l-8" aria-labelledby="close">
            <h2 id="close">{settling.settled === null ? 'Settle it' : 'Settled'}</h2>
            {#if settling.settled !== null}
              <p data-testid="settled">
                Settled by {stall.nameOf(settling.settled.by)}, {dayWords(
                  settling.settled.at.slice(0, 10),
                  stall.business.locale,
                )}
                {timeWords(settling.settled.at, stall.business.locale, event.timeZone)}. Its digest
                is <span class="code break-all">{settling.settled.digest.slice(0, 16)}…</span>
              </p>
              <p class="soft text-sm">
                What comes now does not change these figures in silence: it shows as a loose end.
                Going back a stage, on the event’s page, opens it again.
              </p>
            {:else}
              <p class="soft">
                {settling.ends.length === 0
                  ? 'Nothing is loose. Settling keeps what stands on its accounts, and how far each device is known.'
                  : 'When no loose end is left, or each is accepted, it can be settled.'}
              </p>
            {/if}
            {#if settling.settled === null || changed}
              <RightButton
                right="event.settle"
                label={changed ? 'Settle once more' : 'Settle the event'}
                onGo={settle}
              />
            {/if}
            {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
          </section>
        </div>
      </div>
    {/if}
  {/if}
</div>
