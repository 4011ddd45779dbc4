<script lang="ts">
  /** A line of a statement that nobody has said everything of: what it may be, and what it is said to be. */
  import { isOver, type BankLineNow } from '$lib/core/bank/bank-lines';
  import type { CostProposal } from '$lib/core/bank/due-costs';
  import { joinBank, noneOfOurs, payByLine } from '$lib/core/bank/join-bank';
  import type { Proposal } from '$lib/core/bank/match-bank';
  import type { InvoiceNow } from '$lib/core/invoice/invoice-state';
  import { invoicesNamed } from '$lib/core/invoice/named-invoices';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { bankRefusalWords, costWords, openWords } from '$lib/ui/words/bank-words';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import RightButton from '../RightButton.svelte';
  import { useStall } from '../stall.svelte';
  import type { AskedBank } from './bank.svelte';
  import JoinedTo from './JoinedTo.svelte';

  interface Props {
    bank: AskedBank;
    line: BankLineNow;
    eventName: (id: string) => string;
    /** All that there are. */
    invoices: readonly InvoiceNow[];
  }
  const { bank, line, eventName, invoices }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  const now = $derived(bank.now);
  const proposals = $derived((now?.proposals ?? []).filter((each) => each.line === line.id));
  const costs = $derived((now?.costs ?? []).filter((each) => each.line === line.id));
  const already = $derived((now?.already ?? []).find((each) => each.line === line.id));
  const openOf = (key: string) => now?.money.find((each) => each.key === key);
  const fitting = $derived(
    (now?.money ?? []).filter(({ amount }) => Math.sign(amount) === Math.sign(line.left)),
  );
  /** What somebody paid by transfer, and said for which invoice. */
  const named = $derived(
    line.left > 0 ? invoicesNamed(`${line.reference} ${line.text}`, invoices) : [],
  );
  const account = $derived(now?.accounts.find(({ id }) => id === line.account)?.name ?? '');
  const none = $derived(
    line.joins.reduce((sum, each) => sum + (each.money === null ? each.amount : 0), 0),
  );

  type Doing = '' | 'join' | 'pay' | 'none';
  let doing = $state<Doing>('');
  let chosen = $state('');
  let typed = $state('');
  let rest = $state<'kept' | 'to come'>('to come');
  let why = $state('');
  let event = $state('');
  let paidFor = $state<'pitch' | 'cost'>('cost');
  let wrong = $state('');
  const picked = $derived(openOf(chosen));

  function begin(what: Doing, key = ''): void {
    doing = what;
    wrong = '';
    chosen = key;
    typed = money.plain(Math.min(Math.abs(line.left), Math.abs(openOf(key)?.amount ?? line.left)));
    rest = openOf(key)?.is === 'payout' ? 'kept' : 'to come';
  }

  async function join(key: string, much: string, left: 'kept' | 'to come', lentBy?: string) {
    const open = openOf(key);
    if (open === undefined) {
      wrong = 'Choose what it is.';
      return;
    }
    const { currency } = stall.business;
    const of = { id: line.id, day: line.day, left: line.left };
    wrong = await bank.write(
      () => joinBank({ newId, line: of, open, typed: much, currency, rest: left }),
      bankRefusalWords,
      lentBy,
    );
    if (wrong === '') doing = '';
  }
  const joinAll = (each: Proposal, lentBy?: string): Promise<void> =>
    join(each.key, money.plain(Math.abs(line.left)), 'kept', lentBy);

  async function pay(lentBy?: string): Promise<void> {
    const command = {
      ...{ newId, line: { id: line.id, left: line.left }, event, for: paidFor, typed },
      currency: stall.business.currency,
      what: why === '' ? line.other || line.text : why,
    };
    wrong = await bank.write(() => payByLine(command), bankRefusalWords, lentBy);
    if (wrong === '') doing = '';
  }

  async function payAll({ event, for: is, what }: CostProposal, lentBy?: string): Promise<void> {
    const command = {
      ...{ newId, line: { id: line.id, left: line.left }, event, for: is },
      ...{ typed: money.plain(Math.abs(line.left)), currency: stall.business.currency },
      what: what === '' ? line.other || line.text : what,
    };
    wrong = await bank.write(() => payByLine(command), bankRefusalWords, lentBy);
  }

  async function isNone(lentBy?: string): Promise<void> {
    const [said, before, of] = [why, none, { id: line.id, left: line.left }];
    wrong = await bank.write(() => noneOfOurs(newId, of, before, said), bankRefusalWords, lentBy);
    if (wrong === '') doing = '';
  }
</script>

<article
  class="sheet border-accent grid gap-2 border-l-8"
  aria-label="Line of {money.text(line.amount)}"
  data-testid="bank-line"
>
  <div class="grid grid-cols-[minmax(0,1fr)_auto] items-start gap-3">
    <div class="min-w-0">
      <b class="font-[650] break-words">{line.other || line.reference || line.text || 'No words'}</b
      >
      <p class="soft text-sm break-words">
        {shortDayWords(line.day, stall.business.locale)}{account === '' ? '' : ` · ${account}`}
        {#if line.reference !== ''}· <span class="code">{line.reference}</span>{/if}
        {#if line.text !== ''}<span class="block">{line.text}</span>{/if}
      </p>
    </div>
    <p class="text-right">
      <b class="figure text-lg">{money.figure(line.amount)}</b>
      {#if line.left !== line.amount}
        <span class="soft block text-sm">{money.figure(line.left)} left</span>
      {/if}
    </p>
  </div>
  {#if isOver(line)}
    <p class="text-error text-sm">
      More was joined to it than it is: two people may have said so at once. Take one apart below.
    </p>
  {/if}
  {#if already !== undefined}
    <p class="text-error text-sm">
      The books say that this came already. If it is there twice, one is too much: ask the bank.
    </p>
  {/if}
  {#if line.joins.length > 0}<JoinedTo {bank} {line} {eventName} />{/if}
  {#if doing === ''}
    {#each proposals.slice(0, 4) as each (each.key)}
      {@const open = openOf(each.key)}
      {#if open !== undefined}
        <div class="bg-base-200/60 grid gap-2 rounded-xl p-3" data-testid="proposal">
          <p>
            {openWords(open, eventName)}
            <span class="soft block text-sm"
              >{each.by === 'reference'
                ? 'by its reference'
                : 'by its amount alone'}{each.difference === 0
                ? ''
                : `; the line is ${money.off(each.difference)}`}</span
            >
          </p>
          <div class="flex flex-wrap gap-2">
            {#if each.difference === 0}
              <RightButton
                right="event.settle"
                label="This is it"
                look="btn-quiet"
                isBusy={bank.isOld}
                onGo={(lender) => joinAll(each, lender)}
              />
            {:else}
              <button
                type="button"
                class="btn btn-quiet"
                disabled={bank.isOld}
                onclick={() => begin('join', each.key)}>This, in part …</button
              >
            {/if}
          </div>
        </div>
      {/if}
    {/each}
    {#each costs.slice(0, 4) as each (`${each.event} ${each.for} ${each.what}`)}
      <div class="bg-base-200/60 grid gap-2 rounded-xl p-3" data-testid="cost-proposal">
        <p>
          {costWords(each, eventName, stall.business.locale)}
          <span class="soft block text-sm"
            >{each.by === 'name' ? 'by its name and amount' : 'by its amount alone'}</span
          >
        </p>
        <div>
          <RightButton
            right="event.settle"
            label="It was paid for that"
            look="btn-quiet"
            isBusy={bank.isOld}
            onGo={(lender) => payAll(each, lender)}
          />
        </div>
      </div>
    {/each}
    {#each named.slice(0, 4) as { invoice, number, left } (invoice.id)}
      <div class="bg-base-200/60 grid gap-2 rounded-xl p-3" data-testid="named-invoice">
        <p>
          Invoice {number} to {invoice.buyer?.company || invoice.buyer?.name || 'somebody'},
          {money.text(left)} to pay
          <span class="soft block text-sm"
            >by its number{left === line.left ? '' : `; the line is ${money.text(line.left)}`}. Its
            payment is taken there; then the line is that.</span
          >
        </p>
        <div><a class="btn btn-quiet" href="/invoices/{invoice.id}">Open the invoice</a></div>
      </div>
    {/each}
    <div class="flex flex-wrap gap-2">
      {#if fitting.length > 0}
        <button type="button" class="btn btn-quiet" onclick={() => begin('join')}
          >Choose what it is …</button
        >
      {/if}
      {#if line.left < 0}
        <button type="button" class="btn btn-quiet" onclick={() => begin('pay')}
          >A cost of an event …</button
        >
      {/if}
      <button type="button" class="btn btn-quiet" onclick={() => begin('none')}
        >None of ours …</button
      >
    </div>
  {:else if doing === 'join'}
    <label class="grid gap-1 font-[560]">
      It is
      <select
        class="select min-h-12 w-full"
        bind:value={chosen}
        onchange={() => begin('join', chosen)}
      >
        <option value="">choose</option>
        {#each fitting as open (open.key)}
          <option value={open.key}
            >{money.figure(open.amount)} · {openWords(open, eventName)}</option
          >
        {/each}
      </select>
    </label>
    <Field label="How much of it" bind:value={typed} inputmode="decimal" says={wrong} />
    {#if picked !== undefined && picked.money === null}
      <fieldset class="grid gap-1">
        <legend class="font-[560]">If less came than {money.text(Math.abs(picked.amount))}</legend>
        <label class="flex min-h-12 items-center gap-3"
          ><input type="radio" class="radio" bind:group={rest} value="to come" /> the rest is still to
          come</label
        >
        <label class="flex min-h-12 items-center gap-3"
          ><input type="radio" class="radio" bind:group={rest} value="kept" /> the rest was kept as fees</label
        >
      </fieldset>
    {/if}
    <div class="flex flex-wrap gap-2">
      <RightButton
        right="event.settle"
        label="Join them"
        look="btn-quiet"
        isBusy={bank.isOld}
        onGo={(lender) => join(chosen, typed, rest, lender)}
      />
      <button type="button" class="btn btn-quiet" onclick={() => (doing = '')}>Not now</button>
    </div>
  {:else if doing === 'pay'}
    <label class="grid gap-1 font-[560]">
      Paid for
      <select class="select min-h-12 w-full" bind:value={event}>
        <option value="">choose an event</option>
        {#each now?.events ?? [] as each (each.id)}
          <option value={each.id}>{each.name}, {each.day}</option>
        {/each}
      </select>
    </label>
    <div class="grid items-start gap-3 sm:grid-cols-2">
      <label class="grid gap-1 font-[560]">
        What for
        <select class="select min-h-12 w-full" bind:value={paidFor}>
          <option value="pitch">the pitch</option>
          <option value="cost">another cost</option>
        </select>
      </label>
      <Field label="How much of it" bind:value={typed} inputmode="decimal" />
    </div>
    <Field label="In words" bind:value={why} maxlength={120} says={wrong} />
    <div class="flex flex-wrap gap-2">
      <RightButton
        right="event.settle"
        label="It was paid for that"
        look="btn-quiet"
        isBusy={bank.isOld}
        onGo={pay}
      />
      <button type="button" class="btn btn-quiet" onclick={() => (doing = '')}>Not now</button>
    </div>
  {:else}
    <Field
      label="What {money.text(line.left)} of it is, if it has nothing to do with the events"
      bind:value={why}
      maxlength={500}
      says={wrong}
    />
    <div class="flex flex-wrap gap-2">
      <RightButton
        right="event.settle"
        label="So it is"
        look="btn-quiet"
        isBusy={bank.isOld}
        onGo={isNone}
      />
      <button type="button" class="btn btn-quiet" onclick={() => (doing = '')}>Not now</button>
    </div>
  {/if}
  {#if doing === '' && wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
</article>
