<script lang="ts">
  /** Money back without a sale: what is brought, or an amount, and why. */
  import { onDestroy } from 'svelte';
  import { toast } from 'svelte-sonner';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { itemName } from '$lib/core/goods/item-name';
  import { asCredit, isHeldMethod } from '$lib/core/held/held-account';
  import { allWays } from '$lib/core/payment/ways';
  import { givenFor, type ChosenBack } from '$lib/core/sale/make-return';
  import { refundMostOf, refundOwed } from '$lib/core/sale/make-refund';
  import { hasWords, wordsIn } from '$lib/core/entry-line/words';
  import { live } from '$lib/device/live.svelte';
  import { cardKey } from '$lib/device/cards/card-key';
  import type { CardReader } from '$lib/device/cards/card-reader';
  import { readerHere } from '$lib/device/cards/reader-here';
  import { refundOnce, wouldRefund, type Refunding } from '$lib/device/refund-goods';
  import Field from '$lib/ui/forms/Field.svelte';
  import { refundRefusalWords } from '$lib/ui/words/return-words';
  import GoesTo from '../GoesTo.svelte';
  import RightButton from '../RightButton.svelte';
  import { useStall } from '../stall.svelte';
  import AskForCard from './AskForCard.svelte';
  import { OntoCard } from './onto-card.svelte';
  import WhoseCredit from './WhoseCredit.svelte';
  import { stillHere } from '../still-here';

  interface Line {
    item: string | null;
    quantity: string;
    each: string;
    to: ChosenBack['to'];
  }
  const stall = useStall();
  const { db } = stall;
  const money = $derived(stall.money);
  const items = live(() => () => db.books.items.toArray(), []);
  let lines = $state<Line[]>([]);
  let typed = $state('');
  let saleNumber = $state(page.url.searchParams.get('number') ?? '');
  let reason = $state('');
  let reference = $state('');
  let by = $state('');
  let wrong = $state('');
  const fits = $derived(
    typed.trim() === ''
      ? []
      : items.value
          .filter(
            (item) =>
              item.isActive && hasWords([item.name, item.detail, item.code], wordsIn(typed)),
          )
          .slice(0, 6),
  );
  const itemOf = (id: string | null) => items.value.find((item) => item.id === id);
  const drawers = $derived(stall.openDrawers);
  const active = $derived(allWays(stall.wayRows).filter(({ isActive }) => isActive));
  /** What is given back so is given back there by hand. */
  const ways = $derived(
    active.filter(
      ({ method }) => !['cash', 'card', 'keyed'].includes(method) && !isHeldMethod(method),
    ),
  );
  let reader = $state.raw<CardReader | null>(null);
  $effect(() => {
    void cardKey(db, stall.transport).then((known) => (reader = readerHere(known)));
  });
  /** Onto a card that is held to the reader; the one that had paid gets its money back from its sale. */
  const onto = $derived(reader === null ? [] : active.filter(({ method }) => method === 'card'));
  const card = new OntoCard();
  onDestroy(() => {
    card.stop();
  });
  $effect(() => {
    if (by === '' && drawers[0] !== undefined) by = `drawer ${(stall.drawer ?? drawers[0]).id}`;
  });
  /** Where credit is a way to pay, it can become somebody's. */
  let customer = $state('');
  const credit = $derived(customer === '' ? null : asCredit(stall.wayRows, customer));
  const hasCredit = $derived(asCredit(stall.wayRows, '') !== null);
  const drawer = $derived(by.startsWith('drawer ') ? by.slice('drawer '.length) : null);
  const asked = $derived({
    lines: lines.map(({ item, ...line }) => ({ ...line, item: itemOf(item) })),
    pricing: stall.business,
    taxes: stall.taxes,
    event: stall.event === undefined ? null : { id: stall.event.id, swaps: stall.event.swaps },
  });
  const owed = $derived(refundOwed(asked));
  const gives = $derived(
    owed === null ? null : givenFor(owed, drawer !== null, stall.business.cashStep),
  );

  function add(item: string | null): void {
    const price = itemOf(item)?.price;
    lines.push({
      ...{ item, quantity: '1', to: 'stock' },
      each: price === undefined || price === 0 ? '' : money.plain(price),
    });
    typed = '';
    wrong = '';
  }

  async function go(lentBy?: string): Promise<void> {
    const account = by === 'credit' ? credit : null;
    if (by === 'credit' && account === null) {
      wrong = 'Choose whose credit it becomes.';
      return;
    }
    wrong = '';
    // Whoever lends the right answers for the amount.
    const who = stall.staff.find(({ id }) => id === (lentBy ?? stall.seller?.id));
    const [what = '', way = ''] = by.split(' ');
    const refund: Refunding = {
      ...{ ...asked, saleNumber, reason, reference, drawer, lentBy },
      lines: asked.lines.map((line) => ({ ...line })),
      way: account?.way ?? (what === 'way' || what === 'card' ? way : 'cash'),
      account: account?.account ?? null,
      timeZone: stall.event?.timeZone ?? stall.business.timeZone,
      deviceNumber: stall.identity.number,
      by: stall.seller?.id ?? null,
      most: refundMostOf(who, stall.business),
    };
    if (what === 'card' && reader !== null) await giveOnto(refund, reader);
    else await give(refund);
  }

  /** What would be refused is refused before a card is held to the reader. */
  async function giveOnto(refund: Refunding, to: CardReader): Promise<void> {
    const would = await wouldRefund(stall.daybook, refund);
    if (!would.ok) {
      wrong = refundRefusalWords(would.refusal, money);
      return;
    }
    const read = await card.read(to, would.amount, money);
    if (typeof read === 'string') wrong = read;
    else await give({ ...refund, card: read });
  }

  async function give(refund: Refunding): Promise<void> {
    const isHere = stillHere();
    const outcome = await refundOnce(stall.daybook, refund);
    if (!outcome.ok) {
      wrong =
        outcome.refusal.code === 'slip/gone' ? '' : refundRefusalWords(outcome.refusal, money);
      return;
    }
    const amount = money.text(outcome.amount);
    toast(
      refund.card !== undefined
        ? `${amount} goes to the card as soon as there is network.`
        : refund.account === null
          ? `Give back ${amount}.`
          : `${amount} is their credit now.`,
    );
    if (isHere()) await goto(`/documents/${outcome.drafts[0]?.id ?? ''}`, { replaceState: true });
  }
</script>

<div class="page page-text gap-5">
  <h1>Give back without a sale</h1>
  <p class="soft">
    For goods of a sale that is not at hand. Where there is one, <a class="plain" href="/find"
      >find it</a
    > and take them back from it: then it comes to the penny, and the card that paid gets its money back.
  </p>
  <section class="sheet grid gap-4" aria-label="What comes back">
    {#each lines as line, at (at)}
      {@const item = itemOf(line.item)}
      <fieldset class="border-base-300 grid gap-2 border-b pb-3">
        <legend class="flex w-full items-center justify-between gap-2 font-[560]">
          <span>{item === undefined ? 'An amount' : itemName(item)}</span>
          <button type="button" class="soft min-h-12 underline" onclick={() => lines.splice(at, 1)}
            >Leave it out</button
          >
        </legend>
        <div class="grid gap-2 sm:grid-cols-3">
          {#if item !== undefined}
            <Field
              label="How many{item.unit === '' ? '' : ` ${item.unit}`}"
              bind:value={line.quantity}
              inputmode="decimal"
            />
          {/if}
          <Field
            label={item === undefined ? 'Amount' : 'For one'}
            bind:value={line.each}
            inputmode="decimal"
          />
          {#if item !== undefined}
            <GoesTo label="It goes" bind:value={line.to} />
          {/if}
        </div>
      </fieldset>
    {/each}
    <Field label="Goods that come back" bind:value={typed} maxlength={80} />
    <div class="flex flex-wrap gap-2" role="group" aria-label="Goods that fit">
      {#each fits as item (item.id)}
        <button type="button" class="btn btn-quiet" onclick={() => add(item.id)}
          >{itemName(item)}, {money.text(item.price)}</button
        >
      {/each}
      <button type="button" class="btn btn-quiet" onclick={() => add(null)}>Only an amount</button>
    </div>
    <Field
      label="Number on the receipt, if there is one"
      bind:value={saleNumber}
      maxlength={20}
      help="It is held against that sale as soon as the server knows of this."
    />
    <label class="grid gap-1 font-[560]">
      Given back
      <select class="select min-h-12 w-full" bind:value={by}>
        {#if by === ''}<option value="">choose</option>{/if}
        {#each drawers as { id, name } (id)}
          <option value="drawer {id}">cash out of {name}</option>
        {/each}
        {#each onto as { id, name } (id)}
          <option value="card {id}">onto a card that is here, by {name}</option>
        {/each}
        {#each ways as { id, name } (id)}
          <option value="way {id}">by {name}, done there by hand</option>
        {/each}
        {#if hasCredit}<option value="credit">as credit of a customer</option>{/if}
      </select>
    </label>
    {#if by === 'credit'}<WhoseCredit bind:customer />{/if}
    {#if by.startsWith('way ')}
      <Field label="Reference, if there is one" bind:value={reference} maxlength={80} />
    {/if}
    <Field label="Why" bind:value={reason} maxlength={200} />
    {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
    {#if card.asking !== null && reader !== null}
      <AskForCard {reader} amount={card.asking} onStop={() => card.stop()} />
    {/if}
    <div class="flex flex-wrap gap-2">
      <RightButton
        right="refund.unlinked"
        label={gives === null
          ? 'Give back'
          : by === 'credit'
            ? `Keep ${money.text(gives)} as credit`
            : `Give back ${money.text(gives)}`}
        isBusy={card.asking !== null}
        onGo={go}
      />
      <a class="btn btn-quiet" href="/find">Cancel</a>
    </div>
  </section>
</div>
