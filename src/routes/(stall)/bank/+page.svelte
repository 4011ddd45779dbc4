<script lang="ts">
  /** The bank: statements taken in, what each line is, and what is still to come. */
  import { dayWords } from '$lib/ui/words/date-words';
  import { openWords } from '$lib/ui/words/bank-words';
  import { InvoicesNow } from '../invoices/invoices-now.svelte';
  import { useStall } from '../stall.svelte';
  import { AskedBank } from './bank.svelte';
  import BankAccounts from './BankAccounts.svelte';
  import BankLine from './BankLine.svelte';
  import DoneLine from './DoneLine.svelte';
  import StatementIn from './StatementIn.svelte';

  const stall = useStall();
  const money = $derived(stall.money);
  const bank = new AskedBank(stall);
  const now = $derived(bank.now);
  const invoices = new InvoicesNow(() => undefined);
  const eventName = (id: string): string =>
    now?.events.find((event) => event.id === id)?.name ?? 'an event';
  const toCome = $derived(
    (now?.money ?? []).filter(({ is, amount }) => is !== 'paid' && amount > 0),
  );
  /** Shown apart from what each of its payments is. */
  const listed = $derived(toCome.filter(({ is }) => is !== 'way'));
</script>

<div class="page gap-5">
  <div class="flex flex-wrap items-end justify-between gap-3">
    <h1>Bank</h1>
    {#if now !== null}
      <p class="soft" data-testid="bank-open">
        {now.open.length}
        {now.open.length === 1 ? 'line' : 'lines'} to look at
      </p>
    {/if}
  </div>
  {#if bank.state.is === 'sign in'}
    <p class="sheet max-w-xl">
      The bank is for whoever signs in with the business’s e-mail and password.
      <a class="plain" href="/sign-in">Sign in</a> on this device, and come back.
    </p>
  {:else if bank.state.is === 'other business'}
    <p class="sheet max-w-xl" role="alert">
      This browser is signed in for another business than the device sells for.
      <a class="plain" href="/account">Sign out there</a>, and sign in for this one.
    </p>
  {:else if bank.state.is === 'away'}
    <p class="sheet border-accent max-w-xl border-l-8" role="status">{bank.state.says}</p>
  {:else if now === null}
    <p class="soft">Asking the server …</p>
  {/if}
  {#if now !== null}
    <div class="grid grid-cols-[minmax(0,1fr)] items-start gap-4 lg:grid-cols-[1.4fr_1fr]">
      <div class="grid grid-cols-[minmax(0,1fr)] gap-4">
        <section class="grid gap-3" aria-labelledby="open">
          <h2 id="open">To look at</h2>
          {#each now.open as line (line.id)}
            <BankLine {bank} {line} {eventName} invoices={invoices.all} />
          {:else}
            <p class="sheet" data-testid="bank-none">
              {now.done.length === 0
                ? 'Nothing yet. Take in a statement of the bank; each of its lines is then compared with what is still to come.'
                : 'Every line of the bank has its name.'}
            </p>
          {/each}
        </section>
        {#if now.done.length > 0}
          <section class="sheet" aria-labelledby="done">
            <h2 id="done" class="mb-2">Done with</h2>
            <ul data-testid="bank-done">
              {#each now.done as line (line.id)}
                <DoneLine {bank} {line} {eventName} />
              {/each}
            </ul>
            {#if now.older > 0}
              <button type="button" class="btn btn-quiet mt-2" onclick={() => bank.older()}
                >{now.older} older</button
              >
              {#if bank.olderSays !== ''}<p class="text-error" role="alert">
                  {bank.olderSays}
                </p>{/if}
            {/if}
          </section>
        {/if}
      </div>
      <div class="grid grid-cols-[minmax(0,1fr)] gap-4">
        <StatementIn {bank} {eventName} />
        <section class="sheet" aria-labelledby="to-come">
          <h2 id="to-come" class="mb-2">Still to come</h2>
          <table class="rows" data-testid="bank-to-come">
            <tbody>
              {#each listed as open (open.key)}
                <tr>
                  <td
                    >{openWords(open, eventName)}
                    {#if open.day !== ''}<span class="soft block text-sm"
                        >{open.is === 'noted' ? 'came' : 'from'}
                        {dayWords(open.day, stall.business.locale)}{open.is === 'noted'
                          ? ', on no statement yet'
                          : ''}</span
                      >{/if}</td
                  >
                  <td class="figure">{money.figure(open.amount)}</td>
                </tr>
              {:else}
                <tr><td class="soft">Nothing: all that was taken is at the bank.</td></tr>
              {/each}
            </tbody>
          </table>
        </section>
        <BankAccounts {bank} />
      </div>
    </div>
  {/if}
</div>
