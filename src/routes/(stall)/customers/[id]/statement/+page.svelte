<!-- All that moved on a customer's accounts in a period: looked at, saved, printed, written. -->
<script lang="ts">
  import { page } from '$app/state';
  import { localTime } from '$lib/core/event/local-time';
  import { statementOf } from '$lib/core/held/statement';
  import { asked } from '$lib/device/asked.svelte';
  import {
    joinedMoves,
    NONE_OLDER,
    olderMoves,
    ownMoves,
    type OlderMoves,
  } from '$lib/device/held-statement';
  import { customerOf } from '$lib/device/customer-records';
  import { live } from '$lib/device/live.svelte';
  import { documentPdf } from '$lib/paper/document-pdf';
  import Field from '$lib/ui/forms/Field.svelte';
  import { mailAddress } from '$lib/ui/files/mail-to';
  import { saveFile } from '$lib/ui/files/save-file';
  import { wrongOf } from '$lib/ui/words/answer-words';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { moveWords, WHAT_IS_HERE } from '$lib/ui/words/held-words';
  import MoveDocument from '../../../MoveDocument.svelte';
  import { useStall } from '../../../stall.svelte';
  import { saveStatement, statementLetter, statementPaper } from './statement-paper';

  const stall = useStall();
  const { db } = stall;
  const money = $derived(stall.money);
  const { timeZone, locale } = $derived(stall.business);
  const id = $derived(page.params['id'] ?? '');
  const customer = live(() => {
    const wanted = id;
    return () => customerOf(db, wanted);
  }, undefined);
  const accounts = $derived([`customer:${id}`, `credit:${id}`] as const);
  const own = live(() => {
    const wanted = accounts;
    return () => ownMoves(db, wanted);
  }, undefined);
  const older = asked<OlderMoves>(() => {
    const wanted = accounts;
    return { of: id, ask: () => olderMoves(stall.transport, wanted) };
  }, NONE_OLDER);

  let which = $state<'customer' | 'credit'>('customer');
  let from = $state('');
  let to = $state('');
  const dayOf = (at: string): string => localTime(Date.parse(at), timeZone).day;
  const statement = $derived.by(() => {
    if (own.value === undefined) return undefined;
    const account = `${which}:${id}`;
    const moves = joinedMoves(own.value.moves, older.value.moves).filter(
      (each) => each.account === account,
    );
    const balance = own.value.balances[which === 'customer' ? 0 : 1] ?? 0;
    return statementOf(moves, balance, from, to, dayOf);
  });
  /** What is owed to them is a credit: told as they have it. */
  const sign = $derived(which === 'credit' ? -1 : 1);
  const about = $derived({
    ...{ business: stall.business.name, customer: customer.value?.name ?? '', which, from, to },
    ...{ money, locale, dayOf },
  });
</script>

<div class="page page-text gap-5">
  <h1>Statement{customer.value === undefined ? '' : ` for ${customer.value.name}`}</h1>
  <section class="sheet grid gap-4" aria-label="Which">
    <div class="flex flex-wrap gap-2" role="group" aria-label="Account">
      {#each [['customer', 'What they owe'], ['credit', 'Their credit']] as const as [each, name] (each)}
        <button
          type="button"
          class={['btn btn-quiet', which === each && '!border-primary !border-3']}
          aria-pressed={which === each}
          onclick={() => (which = each)}>{name}</button
        >
      {/each}
    </div>
    <div class="grid grid-cols-2 gap-3">
      <Field label="From" type="date" bind:value={from} />
      <Field label="To" type="date" bind:value={to} />
    </div>
    {#if older.value.away !== null}
      <p class="soft" role="status">{wrongOf(older.value.away, 'No network.', WHAT_IS_HERE)}</p>
    {/if}
  </section>
  {#if statement !== undefined}
    <section class="sheet grid gap-3" aria-label="Statement" data-testid="statement">
      <table class="rows">
        <thead
          ><tr
            ><th scope="col">Day</th><th scope="col" class="!text-left">What</th><th
              scope="col"
              class="text-right">Amount</th
            ><th scope="col" class="text-right">Stands at</th></tr
          ></thead
        >
        <tbody>
          <tr
            ><td></td><td class="soft !text-left">Before</td><td></td><td class="figure text-right"
              >{money.figure(sign * statement.opening)}</td
            ></tr
          >
          {#each statement.lines as line (line.id)}
            <tr>
              <td>{shortDayWords(dayOf(line.at), locale)}</td>
              <td class="!text-left">{moveWords(line)}<MoveDocument move={line} /></td>
              <td class="figure text-right">{money.figure(sign * line.amount)}</td>
              <td class="figure text-right">{money.figure(sign * line.balance)}</td>
            </tr>
          {:else}
            <tr
              ><td></td><td class="soft !text-left" colspan="3">Nothing moved in this time.</td></tr
            >
          {/each}
        </tbody>
      </table>
      <p class="flex items-baseline justify-between gap-3">
        <b>{which === 'credit' ? 'Credit' : 'To pay'}</b>
        <span class="amount text-2xl" data-testid="closing"
          >{money.text(sign * statement.closing)}</span
        >
      </p>
      <div class="flex flex-wrap gap-2">
        <button
          type="button"
          class="btn btn-quiet"
          onclick={async () => {
            const paper = statementPaper(statement, about);
            saveFile(
              `${paper.title} ${paper.number}.pdf`,
              'application/pdf',
              await documentPdf(paper, 'sheet'),
            );
          }}>Save as a PDF</button
        >
        <button type="button" class="btn btn-quiet" onclick={() => saveStatement(statement, about)}
          >Save as a table</button
        >
        {#if (customer.value?.email ?? '') !== ''}
          <a
            class="btn btn-quiet"
            href={mailAddress(customer.value?.email ?? '', statementLetter(statement, about))}
            >Write them a mail</a
          >
        {/if}
      </div>
    </section>
  {/if}
  <p><a class="plain" href="/customers/{id}">The customer</a></p>
</div>
