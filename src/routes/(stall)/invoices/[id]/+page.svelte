<!-- One invoice or credit note: as it was made, how it stands, and what can be done with it. -->
<script lang="ts">
  import { page } from '$app/state';
  import { owedBy, toCredit } from '$lib/core/invoice/invoice-state';
  import { buyerText } from '$lib/core/invoice/invoice-paper';
  import { standingVoids } from '$lib/core/loose-end/voided-twice';
  import { customerOf } from '$lib/device/customer-records';
  import { live } from '$lib/device/live.svelte';
  import { cardTryWords } from '$lib/ui/words/charge-words';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import {
    invoiceNumberWords,
    reminderWords,
    sortWords,
    STANDS_WORDS,
  } from '$lib/ui/words/invoice-words';
  import { localTime } from '$lib/core/event/local-time';
  import { goto } from '$app/navigation';
  import { putPayment } from '../../counter/put-payment';
  import { useStall } from '../../stall.svelte';
  import { InvoicesNow } from '../invoices-now.svelte';
  import Remind from '../Remind.svelte';
  import CreditInvoice from './CreditInvoice.svelte';
  import InvoiceActs from './InvoiceActs.svelte';
  import InvoiceFiguresTable from '../InvoiceFiguresTable.svelte';

  const stall = useStall();
  const { db } = stall;
  const money = $derived(stall.money);
  const { locale } = $derived(stall.business);
  const id = $derived(page.params['id'] ?? '');
  const found = live(() => {
    const wanted = id;
    return async () => {
      const invoice = await db.books.invoices.get(wanted);
      if (invoice === undefined) return undefined;
      const of = invoice.credits === null ? invoice : await db.books.invoices.get(invoice.credits);
      const source = of?.sourceIs === 'sale' ? (of.source ?? '') : '';
      const [customer, returns, voids, undone] = await Promise.all([
        customerOf(db, invoice.customer),
        db.books.returns.where('sale').equals(source).toArray(),
        db.books.voids.where('sale').equals(source).toArray(),
        db.books.voidsUndone.where('sale').equals(source).toArray(),
      ]);
      return {
        ...{ invoice, of, customer, returns },
        tries: await db.books.chargeCards.where('invoice').equals(wanted).sortBy('at'),
        reminded: await db.books.reminders.where('invoice').equals(wanted).sortBy('step'),
        isVoid: standingVoids(voids, undone).length > 0,
      };
    };
  }, undefined);
  const theirs = new InvoicesNow(() => found.value?.invoice.customer ?? null);
  const all = $derived(theirs.all);
  const now = $derived(all.find(({ invoice }) => invoice.id === id));
  const numberOf = (of: string): string =>
    all.find(({ invoice }) => invoice.id === of)?.number ?? '';
  const credits = $derived(now?.credits ?? []);
  const waiting = $derived(
    found.value === undefined
      ? []
      : toCredit(found.value.invoice, credits, found.value.returns, found.value.isVoid),
  );
  let wrong = $state('');

  /** Onto the slip at the counter: there it is paid in any way, and has a receipt. */
  function payIn(): void {
    const customer = found.value?.customer;
    if (now === undefined || customer === undefined) return;
    if (!stall.slip.isEmpty) {
      wrong = 'There is a slip at the counter: ring it up or set it aside first.';
      return;
    }
    const { invoice, left, number } = now;
    const isOfSale = invoice.sourceIs === 'sale';
    const put = putPayment(
      stall,
      { id: customer.id, name: customer.name, discount: customer.discount },
      '',
      left,
      {
        ...{ left, number: isOfSale ? invoice.sourceNumber : number },
        sale: isOfSale ? owedBy(invoice) : '',
        invoice: isOfSale ? '' : invoice.id,
      },
    );
    wrong = 'wrong' in put ? put.wrong : '';
    if (!('wrong' in put)) void goto('/counter');
  }
</script>

<div class="page page-text gap-5">
  {#if now === undefined || found.value === undefined}
    {#if found.isRead && found.value === undefined}
      <h1>No invoice of that kind</h1>
      <p class="sheet">
        This device knows no such invoice. <a class="plain" href="/invoices">Invoices</a>
      </p>
    {/if}
  {:else}
    {@const { invoice, number, stands, left } = now}
    {@const { of, customer } = found.value}
    <h1 data-testid="invoice-number">{sortWords(invoice)} {invoiceNumberWords(number)}</h1>
    <section class="sheet grid gap-4" aria-label={sortWords(invoice)} data-testid="invoice">
      <div class="flex flex-wrap items-start justify-between gap-4">
        <address class="not-italic" data-testid="buyer">
          {#each buyerText(of?.buyer ?? null, of?.vendor ?? null, locale).split('\n') as part, at (at)}
            <span class="block">{part}</span>
          {/each}
        </address>
        <dl class="grid grid-cols-[auto_auto] gap-x-4">
          {#if of?.buyer?.reference !== undefined}
            <dt class="soft">Theirs</dt>
            <dd>{of.buyer.reference}</dd>
          {/if}
          <dt class="soft">Day</dt>
          <dd>{shortDayWords(invoice.issued, locale)}</dd>
          {#if invoice.sort === 'invoice'}
            <dt class="soft">Due</dt>
            <dd class={[stands === 'overdue' && 'text-error font-[600]']}>
              {shortDayWords(invoice.due, locale)}
            </dd>
          {:else if of !== undefined}
            <dt class="soft">For</dt>
            <dd>
              <a class="plain" href="/invoices/{of.id}">{invoiceNumberWords(numberOf(of.id))}</a>
            </dd>
          {/if}
          {#if invoice.sourceIs === 'sale' && invoice.source !== null}
            <dt class="soft">Sale</dt>
            <dd><a class="plain" href="/sales/{invoice.source}">{invoice.sourceNumber}</a></dd>
          {:else if invoice.sourceIs === 'order' && invoice.source !== null}
            <dt class="soft">Order</dt>
            <dd><a class="plain" href="/orders/{invoice.source}">{invoice.sourceNumber}</a></dd>
          {:else if invoice.sourceIs === 'charge' && invoice.source !== null}
            <dt class="soft">For</dt>
            <dd>
              <a class="plain" href="/invoices/charges/{invoice.source}"
                >{shortDayWords(invoice.sourceNumber, locale)}</a
              >
            </dd>
          {:else if invoice.sourceNumber !== ''}
            <dt class="soft">{invoice.sourceIs === 'return' ? 'Came back' : 'Void of'}</dt>
            <dd>{invoice.sourceNumber}</dd>
          {/if}
          {#if stands !== 'credit note'}
            <dt class="soft">Stands</dt>
            <dd data-testid="stands">
              {STANDS_WORDS[stands]}{left > 0 ? `, ${money.text(left)} left` : ''}
            </dd>
          {/if}
        </dl>
      </div>
      {#if invoice.note !== ''}<p>{invoice.sort === 'credit' ? 'Why: ' : ''}{invoice.note}</p>{/if}
      <InvoiceFiguresTable
        figures={invoice}
        paid={invoice.paid}
        says={invoice.sort === 'credit' ? 'Credited' : 'To pay'}
      />
      {#each found.value.tries as each (each.id)}
        <p class={each.is === 'failed' ? 'text-error' : 'soft'} data-testid="card-try">
          {cardTryWords(each, money)}, {shortDayWords(each.at.slice(0, 10), locale)}
        </p>
      {/each}
      {#if of !== undefined}
        <InvoiceActs {invoice} {of} {number} ofNumber={numberOf(of.id)} {customer} />
      {/if}
      {#if left > 0 && customer !== undefined && !customer.isErased}
        <div class="flex flex-wrap items-center gap-3">
          <button type="button" class="btn btn-main" onclick={payIn}>Take a payment</button>
          <span class="soft">It goes on the slip, and is paid there in any way.</span>
        </div>
      {/if}
      {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
    </section>
    <Remind all={[now]} isOne />
    {#if found.value.reminded.length > 0}
      <section class="sheet grid gap-1" aria-labelledby="reminded">
        <h2 id="reminded">Reminded</h2>
        <ul data-testid="reminded">
          {#each found.value.reminded as { id: reminder, step, at } (reminder)}
            <li>
              {reminderWords(step)},
              {shortDayWords(localTime(Date.parse(at), stall.business.timeZone).day, locale)}
            </li>
          {/each}
        </ul>
      </section>
    {/if}
    {#if credits.length > 0}
      <section class="sheet grid gap-2" aria-labelledby="credits">
        <h2 id="credits">Credited</h2>
        <ul data-testid="credits">
          {#each credits as credit (credit.id)}
            <li class="flex justify-between gap-4">
              <a class="plain" href="/invoices/{credit.id}"
                >{invoiceNumberWords(numberOf(credit.id))}</a
              >
              <span class="soft">{credit.note}</span>
              <span class="figure">{money.figure(credit.total)}</span>
            </li>
          {/each}
        </ul>
      </section>
    {/if}
    {#if invoice.sort === 'invoice' && stands !== 'credited'}
      {#key `${String(credits.length)} ${String(waiting.length)}`}
        <CreditInvoice {invoice} {credits} {waiting} />
      {/key}
    {/if}
    <p>
      <a class="plain" href="/invoices">All invoices</a
      >{#if customer !== undefined && !customer.isErased},
        <a class="plain" href="/customers/{customer.id}">{customer.name}</a>{/if}
    </p>
  {/if}
</div>
