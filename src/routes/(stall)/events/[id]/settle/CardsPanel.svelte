<script lang="ts">
  /** Cards: the tills, the report, the bank. The report is fetched, or taken in as a file after a look at it. */
  import { toast } from 'svelte-sonner';
  import type { Row } from '$lib/core/books/tables';
  import type { Draft } from '$lib/core/daybook/chain';
  import { reportSchema } from '$lib/core/payment/card-messages';
  import type { Settling } from '$lib/core/settle/settling';
  import { owedBy } from '$lib/core/settle/settle-event';
  import { readReport, takeFile, takeReport, type ReadReport } from '$lib/core/settle/take-report';
  import { readCsv, textOf } from '$lib/device/csv';
  import { newId } from '$lib/device/new-id';
  import { wrongOf } from '$lib/ui/words/answer-words';
  import RightButton from '../../../RightButton.svelte';
  import { useStall } from '../../../stall.svelte';
  import CameForm from './CameForm.svelte';

  interface Props {
    event: Row<'events'>;
    settling: Settling;
  }
  const { event, settling }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  const { cards } = $derived(settling);
  let says = $state('');
  let isBusy = $state(false);
  let file = $state.raw<(ReadReport & { readonly name: string }) | null>(null);

  async function take(drafts: readonly Draft[], lentBy?: string): Promise<void> {
    await stall.daybook.append(
      () => ({ ok: true as const, drafts }),
      lentBy === undefined ? {} : { lentBy },
    );
    await stall.daybook.settle();
  }

  async function fetchReport(lentBy?: string): Promise<void> {
    isBusy = true;
    says = '';
    let found = 0;
    for (const { date } of event.days) {
      const asked = await stall.transport.ask(`/api/cards/report?day=${date}`, reportSchema);
      if (asked.came !== 'answer') {
        says = wrongOf(asked, 'No network now; try again, or take the report in as a file.');
        continue;
      }
      const { source, lines } = asked.answer;
      found += lines.length;
      if (lines.length > 0) await take(takeReport(newId, source, date, lines), lentBy);
    }
    isBusy = false;
    if (says === '')
      toast(
        found === 0
          ? 'The report has nothing of these days yet.'
          : `${found} ${found === 1 ? 'line is' : 'lines are'} taken in.`,
      );
  }

  async function look(files: FileList | null): Promise<void> {
    const [chosen] = files ?? [];
    file = null;
    says = '';
    if (chosen === undefined) return;
    if (chosen.size > 50_000_000) {
      says = 'That file is larger than 50 MB; a report of one event is far smaller.';
      return;
    }
    const text = await textOf(chosen);
    const { lines, fault } = readCsv(text, ['amount']);
    if (fault !== '') {
      says = fault;
      return;
    }
    file = {
      name: chosen.name.slice(0, 60),
      ...readReport(lines, event.days[0]?.date ?? stall.today, stall.business.currency),
    };
  }
  const good = $derived((file?.rows ?? []).flatMap((row) => (row.ok ? row.line : [])));
  const bad = $derived((file?.rows ?? []).flatMap((row) => (row.ok ? [] : row)));

  async function takeIn(lentBy?: string): Promise<void> {
    const [taken, lines] = [file, good];
    if (taken === null) return;
    await take(takeFile(newId, taken.name, lines), lentBy);
    file = null;
    toast(`${lines.length} ${lines.length === 1 ? 'line is' : 'lines are'} taken in.`);
  }
</script>

<section class="sheet grid gap-3" aria-labelledby="cards">
  <h2 id="cards">Cards</h2>
  <table class="rows" data-testid="cards">
    <tbody>
      <tr><td>The tills say</td><td class="figure">{money.figure(cards.tills)}</td></tr>
      {#if cards.carried > 0}
        <tr
          ><td>Taken with no network, not sent</td><td class="figure"
            >{money.figure(cards.carried)}</td
          ></tr
        >
      {/if}
      {#if cards.failed > 0}
        <tr><td>Declined afterwards</td><td class="figure">{money.figure(cards.failed)}</td></tr>
      {/if}
      <tr
        ><td>The report says</td><td class="figure"
          >{cards.isReported ? money.figure(cards.reported) : 'not asked yet'}</td
        ></tr
      >
      {#if cards.back !== 0}
        <tr><td>Taken back</td><td class="figure">{money.figure(cards.back)}</td></tr>
      {/if}
      <tr><td>Fees</td><td class="figure">{money.figure(cards.fees)}</td></tr>
      {#each cards.payouts as payout (payout.payout)}
        <tr>
          <td
            >Payout {payout.payout}
            <span class="soft block text-sm">{payout.day}</span></td
          >
          <td class="figure"
            >{money.figure(payout.gross - payout.fees)}
            <span class="soft block text-sm"
              >{payout.came === 0 ? 'not at the bank' : `${money.figure(payout.came)} came`}</span
            ></td
          >
        </tr>
      {/each}
    </tbody>
  </table>
  {#if cards.isReported}
    <p class="soft text-sm" data-testid="paired">
      {cards.paired.reference} by reference, {cards.paired.likeness} by amount, card and time,
      {cards.paired.hand} by hand; {cards.missing.length} missing.
    </p>
  {/if}
  <div class="flex flex-wrap items-end gap-3">
    <RightButton
      right="event.settle"
      label={cards.isReported ? 'Fetch the report again' : 'Fetch the report'}
      look="btn-quiet"
      {isBusy}
      onGo={fetchReport}
    />
    <label class="grid gap-1 text-sm font-[560]">
      or a file (CSV)
      <input
        type="file"
        accept=".csv,text/csv"
        class="file-input min-h-12 max-w-60"
        onchange={(chosen) => look(chosen.currentTarget.files)}
      />
    </label>
  </div>
  {#if says !== ''}<p class="text-error" role="alert">{says}</p>{/if}
  {#if file !== null}
    <div class="border-base-300 grid gap-2 rounded-xl border-2 p-3" data-testid="report-file">
      <p>
        <b>{file.name}</b>: {good.length}
        {good.length === 1 ? 'line' : 'lines'} of {money.text(
          good.reduce((sum, { amount }) => sum + amount, 0),
        )} would be taken in{file.double > 0 ? `, ${file.double} of them are there twice` : ''}.
      </p>
      {#if bad.length > 0}
        <ul class="text-error text-sm">
          {#each bad.slice(0, 8) as { at, says: why } (at)}<li>Line {at}: {why}</li>{/each}
          {#if bad.length > 8}<li>and {bad.length - 8} more.</li>{/if}
        </ul>
      {/if}
      <div class="flex flex-wrap gap-2">
        {#if good.length > 0}
          <RightButton
            right="event.settle"
            label="Take in {good.length} {good.length === 1 ? 'line' : 'lines'}"
            look="btn-quiet"
            onGo={takeIn}
          />
        {/if}
        <button type="button" class="btn btn-quiet" onclick={() => (file = null)}>Leave it</button>
      </div>
    </div>
  {/if}
  {#each cards.payouts.filter(({ came }) => came === 0) as payout (payout.payout)}
    {@const from = owedBy(payout, settling.toCome)}
    {@const due = from.reduce((sum, { amount }) => sum + amount, 0)}
    {#if due > payout.fees}
      <CameForm event={event.id} {from} what={payout.payout} expected={due - payout.fees} />
    {/if}
  {/each}
</section>
