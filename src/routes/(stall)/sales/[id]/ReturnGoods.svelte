<script lang="ts">
  /** Goods of the sale that come back: which, how much, to where, and how it is given back. */
  import { toast } from 'svelte-sonner';
  import { goto } from '$app/navigation';
  import { hasWords, wordsIn } from '$lib/core/entry-line/words';
  import { asCredit } from '$lib/core/held/held-account';
  import { standingVoids } from '$lib/core/loose-end/voided-twice';
  import {
    canComeBack,
    givenFor,
    leftOnCard,
    mostOnAccount,
    readChosen,
    type ChosenBack,
    type RestOfCard,
  } from '$lib/core/sale/make-return';
  import {
    leftOf,
    leftValueOf,
    promotedIn,
    returnFigures,
    takenOff,
  } from '$lib/core/sale/return-figures';
  import type { SaleDocument } from '$lib/core/sale/sale-document';
  import { quantityText, thousandths } from '$lib/core/money/units';
  import { customerOf } from '$lib/device/customer-records';
  import { live } from '$lib/device/live.svelte';
  import { returnOnce } from '$lib/device/return-goods';
  import { soldIn } from '$lib/device/sale-document';
  import Field from '$lib/ui/forms/Field.svelte';
  import { quantityWords } from '$lib/ui/words/money-words';
  import { bringBackWords, refundWords, returnRefusalWords } from '$lib/ui/words/return-words';
  import { reasonWords } from '$lib/ui/words/stock-words';
  import GoesTo from '../../GoesTo.svelte';
  import RightButton from '../../RightButton.svelte';
  import { useStall } from '../../stall.svelte';
  import { stillHere } from '../../still-here';

  interface Props {
    found: SaleDocument;
    /** What goods cost is shown nowhere; what is given back is said once it is. */
    isGift: boolean;
  }
  const { found, isGift }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  const sold = $derived(soldIn(found));
  const isVoid = $derived(standingVoids(found.voids, found.undone).length > 0);
  const lines = $derived([...canComeBack(sold)].sort((a, b) => a.line - b.line));
  /** Lines that are called the same: their prices tell them apart. */
  const alike = $derived(
    new Set(
      lines.flatMap(({ line, name, detail }) =>
        lines.some((each) => each.line !== line && each.name === name && each.detail === detail)
          ? line
          : [],
      ),
    ),
  );
  /** More lines than these are narrowed by what is typed. */
  const MOST_LINES = 12;
  let narrowed = $state('');
  const narrowing = $derived(wordsIn(narrowed));
  /** What was chosen stays, whatever is typed. */
  const shown = $derived(
    lines.length <= MOST_LINES
      ? lines
      : [
          ...lines.filter(({ line }) => (typed[line] ?? '') !== ''),
          ...lines
            .filter(({ line }) => (typed[line] ?? '') === '')
            .filter(({ name, detail }) => hasWords([name, detail], narrowing))
            .slice(0, MOST_LINES),
        ].sort((a, b) => a.line - b.line),
  );
  const left = $derived(leftOf(sold));
  const values = $derived(leftValueOf(sold));
  /** Cards that it goes back to through the acquirer, as far as each has paid. */
  const cards = $derived(
    found.payments.flatMap((part) => {
      const { id, way, wayName, card } = part;
      if (card === null) return [];
      const rest = leftOnCard(part, found.refunds);
      return rest > 0 ? [{ id, way, name: `${wayName} ${card.last4}`, rest }] : [];
    }),
  );
  /** Accounts that it goes on: those that it was paid from, as far as each had, and credit. */
  const customer = live(() => {
    const id = found.sale.customer;
    return () => (id === null ? undefined : customerOf(stall.db, id));
  }, undefined);
  const accounts = $derived.by(() => {
    const paid = found.payments.flatMap(({ held, way, wayName }) => {
      const rest = held == null ? 0 : mostOnAccount(held.account, found.payments, found.returns);
      if (held == null || rest === null || rest <= 0) return [];
      return [{ account: held.account, way, name: `on ${wayName}, as it was paid`, rest }];
    });
    const who = customer.value;
    const credit = who === undefined ? null : asCredit(stall.wayRows, who.id);
    return credit === null || who === undefined
      ? paid
      : [...paid, { ...credit, name: `as credit of ${who.name}`, rest: null }];
  });
  /** Other ways that are no cash: what is given back so is given back there by hand. */
  const ways = $derived([
    ...new Map(
      found.payments.flatMap(({ drawer, card, held, promotion, way, wayName }) =>
        drawer === null && card === null && held == null && promotion == null
          ? [[way, wayName] as const]
          : [],
      ),
    ),
  ]);

  let doing = $state<'' | 'back' | 'off'>('');
  const isOff = $derived(doing === 'off');
  let typed = $state<Record<number, string>>({});
  let to = $state<Record<number, ChosenBack['to']>>({});
  let reason = $state('');
  let wrong = $state('');
  let by = $state('');
  const drawers = $derived(stall.openDrawers);
  const chosen = $derived(
    lines.map(({ line }) => ({ line, typed: typed[line] ?? '', to: to[line] ?? 'stock' })),
  );
  const back = $derived(readChosen(sold, chosen, isOff, stall.business.currency));
  const drawer = $derived(by.startsWith('drawer ') ? by.slice('drawer '.length) : null);
  const card = $derived(cards.find(({ id }) => by === `card ${id}`));
  const figures = $derived('code' in back ? null : returnFigures(sold, back));
  const owed = $derived(figures === null ? null : takenOff(figures));
  /** What points and rewards had paid goes back as such. */
  const promoted = $derived(figures === null ? 0 : promotedIn(figures));
  /** More than the card or the account had paid: that goes another way beside it. */
  const account = $derived(accounts.find((each) => by === `account ${each.account}`));
  const most = $derived(card?.rest ?? account?.rest ?? null);
  const over = $derived(most === null || owed === null ? 0 : Math.max(0, owed - most));
  let restBy = $state('');
  const onAccount = (id: string): RestOfCard | null => {
    const into = accounts.find((each) => each.account === id);
    return into === undefined ? null : { way: into.way, drawer: null, account: into.account };
  };
  const rest = $derived(
    over === 0 || restBy === ''
      ? null
      : restBy.startsWith('drawer ')
        ? { way: 'cash', drawer: restBy.slice('drawer '.length) }
        : restBy.startsWith('account ')
          ? onAccount(restBy.slice('account '.length))
          : { way: restBy.slice('way '.length), drawer: null },
  );
  const { cashStep } = $derived(stall.business);
  const inRest = $derived(givenFor(over, rest?.drawer != null, cashStep));
  const gives = $derived(
    owed === null ? null : givenFor(owed - over, drawer !== null, cashStep) + inRest,
  );

  /** All of it goes back as points, a reward or on the voucher, and no money is given. */
  const isAllAsPaid = $derived(!isGift && gives !== null && gives <= 0 && promoted > 0);

  function begin(what: 'back' | 'off'): void {
    doing = what;
    [typed, to, reason, wrong, narrowed] = [{}, {}, '', '', ''];
    restBy = '';
    const cash = drawers.find(({ device }) => device === stall.identity.device) ?? drawers[0];
    const paidInCash = found.payments.some((part) => part.drawer !== null);
    const [card] = cards;
    const [onto] = accounts;
    const way = ways[0]?.[0];
    if (card !== undefined && !paidInCash) {
      by = `card ${card.id}`;
      return;
    }
    if (onto !== undefined && onto.rest !== null && !paidInCash) {
      by = `account ${onto.account}`;
      return;
    }
    by =
      way !== undefined && !paidInCash
        ? `way ${way}`
        : cash === undefined
          ? ''
          : `drawer ${cash.id}`;
  }
  const all = (): void =>
    void (typed = Object.fromEntries(
      lines.map(({ line }) => [line, quantityText(thousandths(left.get(line) ?? 0))]),
    ));

  /** On the slip at the counter, where it pays for other goods. */
  async function exchange(): Promise<void> {
    const { currency } = stall.business;
    const isHere = stillHere();
    const refusal = stall.slip.bringBack({ ...sold, isVoid, chosen, reason, currency });
    if (refusal === null) {
      await stall.slip.saved();
      if (isHere()) await goto('/counter');
    } else wrong = bringBackWords(refusal, money);
  }

  async function go(lentBy?: string): Promise<void> {
    wrong = '';
    if (by === 'exchange') {
      await exchange();
      return;
    }
    const [given, byHand] = [gives ?? 0, inRest];
    const outcome = await returnOnce(stall.daybook, {
      ...{ found, chosen, isOff, reason, drawer, lentBy, business: stall.business },
      event: stall.event ?? null,
      way: card?.way ?? account?.way ?? (by.startsWith('way ') ? by.slice('way '.length) : 'cash'),
      card: card?.id ?? null,
      account: account?.account ?? null,
      rest,
      deviceNumber: stall.identity.number,
    });
    if (!outcome.ok) {
      wrong =
        outcome.refusal.code === 'slip/gone' ? '' : returnRefusalWords(outcome.refusal, money);
      return;
    }
    const what = isOff ? 'It is taken off.' : 'It is taken back.';
    doing = '';
    toast(
      account !== undefined
        ? `${what} ${money.text(given - byHand)} is on the account${
            byHand === 0 ? '' : `; give back ${money.text(byHand)} beside it`
          }.`
        : card === undefined
          ? given === 0
            ? what
            : `${what} Give back ${money.text(given)}.`
          : `${what} ${money.text(given - byHand)} goes to the card as soon as there is network${
              byHand === 0 ? '' : `; give back ${money.text(byHand)} beside it`
            }.`,
    );
  }
</script>

{#snippet inCash()}
  {#each drawers as { id, name } (id)}
    <option value="drawer {id}">cash out of {name}</option>
  {/each}
{/snippet}
{#snippet byWay()}
  {#each ways as [way, name] (way)}
    <option value="way {way}">by {name}, as it was paid</option>
  {/each}
{/snippet}

{#each found.returns as row (row.id)}
  <section
    class="sheet border-accent mx-auto grid w-full max-w-md gap-1 border-l-8 print:hidden"
    aria-label="Return {row.number}"
    data-testid="returned"
  >
    <p class="flex flex-wrap justify-between gap-2">
      <b
        >{row.lines.every(({ off }) => off !== undefined) ? 'Taken off afterwards' : 'Came back'} ·
        <span class="code">{row.number}</span></b
      >
      {#if !isGift}<span class="figure">{money.figure(-row.total)}</span>{/if}
    </p>
    {#if !isGift && promotedIn(row) > 0}
      <p class="soft">
        {money.text(promotedIn(row))} went back as it was paid: as points, a reward, or on the voucher.
      </p>
    {/if}
    <ul>
      {#each row.lines as { line, quantity, to: put, off } (line)}
        {@const of = found.lines.find((each) => each.line === line)}
        <li>
          {#if off !== undefined}{isGift ? 'Something' : money.text(off)} off {of?.name ??
              'goods'}{:else}{quantityWords(quantity, of?.unit ?? '')} × {of?.name ??
              'goods'}{put === 'stock' ? ', back to stock' : `, ${reasonWords(put)}`}{/if}
        </li>
      {/each}
    </ul>
    {#if !isGift}
      {#each found.refunds.filter((refund) => refund.return === row.id) as refund (refund.id)}
        <p data-testid="refund">{refundWords(refund, money)}</p>
      {/each}
    {/if}
    <p class="soft text-sm">{stall.nameOf(row.by)}: {row.reason}</p>
  </section>
{/each}
{#if !isVoid && lines.length > 0}
  <section
    class="sheet mx-auto grid w-full max-w-md gap-3 print:hidden"
    aria-label={isOff ? 'Take something off' : 'Take goods back'}
  >
    {#if doing !== ''}
      <div class="flex flex-wrap items-center justify-between gap-2">
        <h2>{isOff ? 'What is taken off' : 'What comes back'}</h2>
        {#if !isOff}
          <button type="button" class="btn btn-quiet" onclick={all}>All of it</button>
        {/if}
      </div>
      {#if isOff}
        <p class="soft text-sm">
          The goods stay with the customer. Type an amount such as 2.50, or 10 %.
        </p>
      {/if}
      {#if lines.length > MOST_LINES}
        <Field label="Which of {lines.length} lines" bind:value={narrowed} maxlength={80} />
      {/if}
      {#each shown as line (line.line)}
        <fieldset class="border-base-300 grid grid-cols-[1fr_6rem] items-end gap-2 border-b pb-3">
          <legend class="font-[560]">
            {line.name}{line.detail === '' ? '' : `, ${line.detail}`}{!isGift &&
            alike.has(line.line)
              ? `, at ${money.text(line.price)}`
              : ''}
            <span class="soft font-normal"
              >{#if isOff}{money.text(values.get(line.line) ?? 0)} of {money.text(
                  line.total,
                )}{:else}{quantityWords(left.get(line.line) ?? 0, line.unit)} of {quantityWords(
                  line.quantity,
                  line.unit,
                )}{/if}</span
            >
          </legend>
          {#if !isOff && line.account === null}
            <GoesTo
              label="Where {line.name} goes"
              isPlain
              bind:value={() => to[line.line] ?? 'stock', (value) => (to[line.line] = value)}
            />
          {/if}
          <label class={['grid gap-1', isOff && 'col-start-2']}>
            <span class="sr-only">{isOff ? 'Off' : 'How much of'} {line.name}</span>
            <input
              class="input figure min-h-12 w-full"
              inputmode={isOff ? 'text' : 'decimal'}
              placeholder="0"
              bind:value={() => typed[line.line] ?? '', (value) => (typed[line.line] = value)}
            />
          </label>
        </fieldset>
      {/each}
      {#if shown.length < lines.length}
        <p class="soft text-sm">
          {shown.length} of {lines.length} lines are shown. Type a name for others.
        </p>
      {/if}
      {#if promoted > 0 && !isGift}
        <p data-testid="promoted">
          {money.text(promoted)} of it had been paid by points, a reward, or a voucher that was sold with
          its tax, and goes back as such.
        </p>
      {/if}
      {#if !isAllAsPaid}
        <label class="grid gap-1 font-[560]">
          Given back
          <select class="select min-h-12 w-full" bind:value={by}>
            {#if by === ''}<option value="">choose</option>{/if}
            {@render inCash()}
            {#each cards as { id, name, rest } (id)}
              <option value="card {id}"
                >to {name}{isGift ? '' : `, up to ${money.text(rest)}`}</option
              >
            {/each}
            {#each accounts as each (each.account)}
              <option value="account {each.account}"
                >{each.name}{isGift || each.rest === null
                  ? ''
                  : `, up to ${money.text(each.rest)}`}</option
              >
            {/each}
            {#if stall.event !== undefined && !isOff}
              <option value="exchange">in exchange, on the slip at the counter</option>
            {/if}
            {@render byWay()}
          </select>
        </label>
      {/if}
      {#if over > 0}
        <label class="grid gap-1 font-[560]">
          {isGift ? 'The rest' : `The rest, ${money.text(inRest)}`}
          <select class="select min-h-12 w-full" bind:value={restBy}>
            <option value="">choose</option>
            {@render inCash()}
            {@render byWay()}
            {#each accounts.filter(({ rest: most }) => most === null) as each (each.account)}
              <option value="account {each.account}">{each.name}</option>
            {/each}
          </select>
        </label>
      {/if}
      {#if by.startsWith('way ') || (rest !== null && rest.drawer === null && rest.account == null)}
        <p class="soft text-sm">
          It is noted here; give the money back there as well, on the terminal or by hand.
        </p>
      {/if}
      <Field label="Why" bind:value={reason} maxlength={200} />
      {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
      <div class="flex flex-wrap gap-2">
        <RightButton
          right={by === 'exchange' ? null : 'refund'}
          label={by === 'exchange'
            ? 'Put it on the slip'
            : gives === null || isGift
              ? 'Give back'
              : isAllAsPaid
                ? 'Take it back'
                : `Give back ${money.text(Math.max(0, gives))}`}
          onGo={go}
        />
        <button type="button" class="btn btn-quiet" onclick={() => (doing = '')}>Cancel</button>
      </div>
    {:else}
      <div class="flex flex-wrap gap-2">
        <button type="button" class="btn btn-quiet" onclick={() => begin('back')}
          >Take goods back …</button
        >
        {#if !isGift}
          <button type="button" class="btn btn-quiet" onclick={() => begin('off')}
            >Take something off …</button
          >
        {/if}
      </div>
    {/if}
  </section>
{/if}
