<!-- One order of a customer: what was agreed, how its goods and its money stand, and what can be done. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { toast } from 'svelte-sonner';
  import { isKnown } from '$lib/core/event/todays-event';
  import { moveHeld } from '$lib/core/held/set-held';
  import { readAmount } from '$lib/core/money/amount-text';
  import { advanceFault, asksFor } from '$lib/core/order/advance';
  import { restOf } from '$lib/core/order/agreed';
  import { changeOf, isOpen } from '$lib/core/order/order-state';
  import { stageOrder } from '$lib/core/order/set-order';
  import { numbersOf } from '$lib/device/invoices';
  import { oneOrder } from '$lib/device/orders';
  import { customerOf } from '$lib/device/customer-records';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { setHeldWords } from '$lib/ui/words/held-words';
  import { invoiceNumberWords } from '$lib/ui/words/invoice-words';
  import { quantityWords } from '$lib/ui/words/money-words';
  import { changeWords, SORT_WORDS } from '$lib/ui/words/order-words';
  import { refusalWords, type AnyRefusal } from '$lib/ui/words/refusal-words';
  import { putDeposit, takeOrder } from '../../counter/take-order';
  import HeldMoves from '../../HeldMoves.svelte';
  import { useStall } from '../../stall.svelte';
  import DepositLeft from '../DepositLeft.svelte';
  import OrderPaper from '../OrderPaper.svelte';
  import OrderStands from '../OrderStands.svelte';
  import OrderTerms from '../OrderTerms.svelte';
  import { stillHere } from '../../still-here';

  const stall = useStall();
  const { db, slip } = stall;
  const money = $derived(stall.money);
  const { locale } = $derived(stall.business);
  const id = $derived(page.params['id'] ?? '');
  const found = live(() => {
    const [wanted, { today }] = [id, stall];
    return async () => {
      const now = await oneOrder(db, wanted, today);
      if (now === undefined) return undefined;
      const items = await db.books.items.bulkGet(now.order.lines.map(({ item }) => item ?? ''));
      const sum = await db.books.heldSums.get(`deposit:${wanted}`);
      const customer = await customerOf(db, now.order.customer);
      const invoices = await db.books.invoices.where('source').equals(wanted).toArray();
      const numbers = await numbersOf(db, invoices);
      const asked = invoices.map((each) => ({ id: each.id, number: numbers.get(each.id) ?? '' }));
      return { now, items, customer, asked, isPaidIn: sum !== undefined };
    };
  }, undefined);
  const now = $derived(found.value?.now);
  const customer = $derived(found.value?.customer);
  const who = $derived(
    customer === undefined || !isKnown(customer)
      ? 'somebody who is not known here'
      : customer.isErased
        ? 'somebody who was forgotten'
        : customer.name,
  );
  /** Credit is only kept for somebody who is there. */
  const isThere = $derived(customer !== undefined && isKnown(customer) && !customer.isErased);

  let amount = $state('');
  let reason = $state('');
  let wrong = $state('');

  async function handOver(): Promise<void> {
    const isHere = stillHere();
    const refusal = await takeOrder(stall, id);
    wrong = refusal === null ? '' : refusalWords(refusal, money);
    if (refusal === null && isHere()) await goto('/counter');
  }

  /** Onto the slip at the counter: there it is paid in any way, and has a receipt. */
  function payIn(): void {
    if (now === undefined || customer === undefined) return;
    const read = readAmount(
      amount.trim() === '' ? money.plain(asksFor(now)) : amount,
      money.currency,
    );
    const { name, discount } = customer;
    const { number } = now.order;
    const whose = { id: customer.id, name, discount };
    const refusal: AnyRefusal | null = !slip.isEmpty
      ? { code: 'slip/not-blank' }
      : read.ok
        ? (advanceFault(now, read.amount) ??
          putDeposit(stall, { id, number, customer: whose }, read.amount))
        : read.refusal;
    wrong = refusal === null ? '' : refusalWords(refusal, money);
    if (refusal === null) void goto('/counter');
  }

  async function stage(to: 'waiting' | 'ready' | 'off', says: string): Promise<void> {
    const event = stall.event?.id ?? null;
    const made = await stall.daybook.append(() =>
      stageOrder({ newId, order: id, stage: to, reason: to === 'off' ? reason : '', event }),
    );
    wrong = made.ok ? '' : refusalWords(made.refusal, money);
    if (!made.ok) return;
    reason = '';
    await stall.daybook.settle();
    toast(says);
  }

  /** What is left on the deposit is kept as the customer's credit. */
  async function asCredit(lentBy?: string): Promise<void> {
    if (now === undefined) return;
    const { number, customer: whose } = now.order;
    const made = await stall.daybook.decide(
      async () => (await db.books.heldSums.get(`deposit:${id}`))?.amount ?? 0,
      (balance) =>
        moveHeld({
          ...{ newId, from: `deposit:${id}`, to: `credit:${whose}`, balance, amount: null },
          reason: `Deposit of ${number}`,
        }),
      lentBy === undefined ? {} : { lentBy },
    );
    wrong = made.ok ? '' : setHeldWords(made.refusal, money);
    if (made.ok) toast('It is their credit now.');
  }
</script>

<div class="page page-text gap-5">
  {#if now === undefined}
    {#if found.isRead}
      <h1>No order of that kind</h1>
      <p class="sheet">
        This device knows no such order. <a class="plain" href="/orders">For customers</a>
      </p>
    {/if}
  {:else}
    {@const { order, handed } = now}
    <h1>{order.number}</h1>
    <section class="sheet grid gap-4" aria-label="Order" data-testid="order">
      <div class="flex flex-wrap items-start justify-between gap-3">
        <p>
          <span class="soft block"
            >{SORT_WORDS[order.sort]}{order.source === '' ? '' : `, made at ${order.source}`}</span
          >
          {#if isThere}<a class="plain text-xl" href="/customers/{order.customer}">{who}</a
            >{:else}{who}{/if}
        </p>
        <p class="flex flex-wrap gap-x-4" data-testid="stands"><OrderStands {now} /></p>
      </div>
      {#if order.stage === 'off' && order.reason !== ''}<p>Called off: {order.reason}</p>{/if}
      <table class="rows" data-testid="ordered">
        <thead
          ><tr
            ><th scope="col">Goods</th><th scope="col" class="text-right">Ordered</th><th
              scope="col"
              class="text-right">Left</th
            ><th scope="col" class="text-right">Comes to</th></tr
          ></thead
        >
        <tbody>
          {#each order.lines as line, at (line.id)}
            {@const change = isOpen(now) ? changeOf(line, found.value?.items[at]) : null}
            <tr>
              <td
                >{line.name}{line.detail === '' ? '' : `, ${line.detail}`}
                {#if change !== null}<span class="soft block text-sm"
                    >{changeWords(change, money)}; agreed at {money.text(line.price)}</span
                  >{/if}{#if line.note !== undefined}<span class="soft block text-sm"
                    >“{line.note}”</span
                  >{/if}</td
              >
              <td class="figure text-right">{quantityWords(line.quantity, line.unit)}</td>
              <td class="figure text-right">{quantityWords(restOf(line, handed), line.unit)}</td>
              <td class="figure text-right">{money.figure(line.total)}</td>
            </tr>
          {/each}
        </tbody>
      </table>
      <dl class="grid grid-cols-3 gap-4" data-testid="money">
        <div>
          <dt class="soft">Comes to</dt>
          <dd class="amount text-2xl">{money.text(now.total)}</dd>
        </div>
        <div>
          <dt class="soft">Deposit there</dt>
          <dd class="amount text-2xl">{money.text(now.deposit)}</dd>
        </div>
        <div>
          <dt class="soft">To pay</dt>
          <dd class="amount text-2xl">{money.text(now.due)}</dd>
        </div>
      </dl>
      <p class="soft">
        {[
          order.until === ''
            ? ''
            : `${order.sort === 'quote' ? 'Holds' : 'Kept'} until ${shortDayWords(order.until, locale)}`,
          order.collectAt === null
            ? ''
            : `collected at ${stall.events.find((each) => each.id === order.collectAt)?.name ?? 'an event'}`,
          order.deposit === 0 ? '' : `${money.text(order.deposit)} asked for in advance`,
          order.note,
        ]
          .filter((part) => part !== '')
          .join(' · ')}
      </p>
      {#if isOpen(now) || now.goods === 'out of date'}
        <div class="flex flex-wrap gap-2">
          <button type="button" class="btn btn-main" onclick={handOver}
            >{now.goods === 'quoted'
              ? 'Sell it as it is'
              : now.goods === 'out of date'
                ? 'Sell it at today’s prices'
                : 'Hand over'}</button
          >
          {#if now.goods === 'waiting'}
            <button
              type="button"
              class="btn btn-quiet"
              onclick={() => stage('ready', `${order.number} is ready.`)}
              >The goods are there</button
            >
          {:else if now.goods === 'ready'}
            <button
              type="button"
              class="btn btn-quiet"
              onclick={() => stage('waiting', `${order.number} waits for its goods.`)}
              >They are not there yet</button
            >
          {/if}
          <OrderPaper {now} {who} customer={isThere ? customer : undefined} />
          {#if now.due > 0 && isThere && stall.business.invoicing !== null}
            <a class="btn btn-quiet" href="/invoices/new?order={id}">Ask for it in writing</a>
          {/if}
        </div>
      {/if}
      {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
    </section>
    {#if order.sort !== 'quote' && isOpen(now) && now.due > 0 && isThere}
      <form
        class="sheet flex flex-wrap items-end gap-3"
        aria-label="Pay in advance"
        onsubmit={(event) => {
          event.preventDefault();
          payIn();
        }}
      >
        <div class="min-w-36 flex-1">
          <Field
            label="They pay in advance"
            bind:value={amount}
            inputmode="decimal"
            autocomplete="off"
            placeholder={money.plain(asksFor(now))}
          />
        </div>
        <button class="btn btn-quiet">To the counter</button>
      </form>
    {/if}
    {#if (found.value?.asked.length ?? 0) > 0}
      <p data-testid="asked">
        Asked for in writing:
        {#each found.value?.asked ?? [] as { id: invoice, number } (invoice)}
          <a class="plain" href="/invoices/{invoice}">{invoiceNumberWords(number)}</a>
        {/each}
      </p>
    {/if}
    {#if now.deposit > 0 && !isOpen(now) && isThere && customer !== undefined}
      <DepositLeft {now} {customer} onCredit={asCredit} />
    {/if}
    {#if found.value?.isPaidIn === true}
      <section class="sheet grid gap-3" aria-labelledby="deposit-moves">
        <h2 id="deposit-moves">Paid in advance</h2>
        <HeldMoves account="deposit:{id}" testid="deposit-moves" />
      </section>
    {/if}
    {#if now.goods !== 'handed over'}
      {#if order.stage !== 'off'}
        {#key `${order.termsStamp} ${order.stageStamp}`}<OrderTerms {now} />{/key}
      {/if}
      <section class="sheet grid gap-3" aria-labelledby="call-off">
        {#if order.stage === 'off'}
          <h2 id="call-off">Called off</h2>
          <button
            type="button"
            class="btn btn-quiet justify-self-start"
            onclick={() => stage('ready', `${order.number} is open again.`)}>Open it again</button
          >
        {:else}
          <h2 id="call-off">Call it off</h2>
          <Field label="Why" bind:value={reason} maxlength={200} autocomplete="off" />
          <button
            type="button"
            class="btn btn-quiet justify-self-start"
            onclick={() => stage('off', `${order.number} is called off.`)}>Call it off</button
          >
        {/if}
      </section>
    {/if}
    <p><a class="plain" href="/orders">All that was quoted, kept and ordered</a></p>
  {/if}
</div>
