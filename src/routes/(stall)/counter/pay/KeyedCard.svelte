<script lang="ts">
  import { localTime } from '$lib/core/event/local-time';
  import { readAmount } from '$lib/core/money/amount-text';
  import {
    CARD_COUNTRIES,
    readKeyedCard,
    schemeOf,
    type HowToTake,
    type KeyedField,
    type KeyedOutcome,
    type KeyedRefusal,
    type TypedCard,
  } from '$lib/core/payment/keyed-card';
  import type { WayToPay } from '$lib/core/payment/ways';
  import { keyedReader } from '$lib/device/cards/keyed-reader';
  import type { CardKey } from '$lib/device/database';
  import Field from '$lib/ui/forms/Field.svelte';
  import { keyedRefusalWords } from '$lib/ui/words/payment-words';
  import { refusalWords } from '$lib/ui/words/refusal-words';
  import { useStall } from '../../stall.svelte';
  import type { CardSteps } from './card-steps.svelte';
  import FileCard from './FileCard.svelte';
  import PracticeOutcome from './PracticeOutcome.svelte';
  import type { Paying } from './paying.svelte';

  interface Props {
    way: WayToPay;
    paying: Paying;
    card: CardSteps;
    cardKey: CardKey | null;
  }
  const { way, paying, card, cardKey }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  const isOffline = $derived(stall.sync.network === 'gone');
  const region = new Intl.Locale(stall.business.locale).region ?? 'GB';
  let typed = $state<{ -readonly [F in keyof TypedCard]: TypedCard[F] }>({
    number: '',
    expiry: '',
    code: '',
    holder: '',
    street: '',
    town: '',
    postcode: '',
    country: CARD_COUNTRIES.includes(region) ? region : 'GB',
    reference: '',
    how: 'now',
    voice: '',
  });
  let amountTyped = $state('');
  let wrong = $state.raw<KeyedRefusal | null>(null);
  let amountWrong = $state('');
  /** What is looked over before it is sent. */
  let review = $state.raw<Extract<KeyedOutcome, { ok: true }> | null>(null);
  let hasFee = $state(true);
  /** What a practice card does. */
  let outcome = $state('approve');
  const scheme = $derived(schemeOf(typed.number));
  const names = new Intl.DisplayNames([stall.business.locale], { type: 'region' });
  const HOW: Readonly<Record<HowToTake, string>> = {
    now: 'take it now',
    later: 'hold it, and take it later',
    voice: 'with an approval code given by voice',
  };
  const saysOf = (field: KeyedField): string =>
    wrong?.field === field ? keyedRefusalWords(wrong) : '';
  const read = $derived(amountTyped.trim() === '' ? null : readAmount(amountTyped, money.currency));
  const clears = $derived(read === null ? paying.left : read.ok ? read.amount : 0);
  const charged = $derived(hasFee ? way : { ...way, surchargeRate: '0', surchargeFixed: 0 });
  const would = $derived(paying.charge(charged, clears));
  const full = $derived(paying.charge(way, clears));
  const inAll = $derived(would === null ? 0 : would.charge + would.surcharge + paying.tip);

  function lookOver(): void {
    amountWrong =
      read?.ok === false
        ? refusalWords(read.refusal, money)
        : would === null
          ? `At most ${money.text(paying.left)} is left.`
          : '';
    const today = localTime(Date.now(), stall.business.timeZone).day;
    const outcome = readKeyedCard($state.snapshot(typed), today);
    wrong = outcome.ok ? null : outcome.refusal;
    review = outcome.ok && amountWrong === '' ? outcome : null;
    if (wrong !== null)
      document.querySelector<HTMLElement>(`[data-keyed="${wrong.field}"]`)?.focus();
  }

  async function send(): Promise<void> {
    if (review === null || cardKey === null) return;
    const { card: sealed, scheme: named, last4 } = review;
    const { how, voice, reference } = typed;
    const reader = keyedReader(cardKey.key, sealed, {
      scheme: named,
      last4,
      ...(cardKey.isPractice ? { outcome } : {}),
    });
    const asked = {
      capture: how !== 'later',
      voice: how === 'voice' ? voice.trim() : '',
      ...(how === 'voice' ? {} : { neverCarried: 'carry/needs-voice' as const }),
      reference,
    };
    // It is in the seal now, and nowhere else.
    review = null;
    [typed.number, typed.code] = ['', ''];
    await card.begin(charged, clears, reader, asked);
  }
</script>

{#if cardKey === null}
  <p class="soft px-4 pb-4">
    What cards are sealed with has not been heard of yet: it needs the network once.
  </p>
{:else if review !== null}
  <div class="grid gap-3 px-4 pb-4" role="group" aria-label="Review">
    <dl class="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
      <dt class="soft">Card</dt>
      <dd>{review.scheme} ending {review.last4}, {review.card.expiry}</dd>
      <dt class="soft">Of</dt>
      <dd>
        {review.card.holder}, {review.card.address.street}, {review.card.address.town}
        {review.card.address.postcode}, {names.of(review.card.address.country)}
      </dd>
      <dt class="soft">For</dt>
      <dd>{typed.reference}</dd>
      <dt class="soft">How</dt>
      <dd>{HOW[typed.how]}{typed.how === 'voice' ? `, ${typed.voice}` : ''}</dd>
      <dt class="soft">Amount</dt>
      <dd class="figure">{money.text(would?.charge ?? 0)}</dd>
      {#if full !== null && full.surcharge > 0}
        <dt class="soft">Surcharge</dt>
        <dd class="flex flex-wrap items-center gap-3">
          <span class="figure">{money.text(would?.surcharge ?? 0)}</span>
          <button type="button" class="soft min-h-12 underline" onclick={() => (hasFee = !hasFee)}
            >{hasFee ? 'Remove' : 'Add it again'}</button
          >
        </dd>
      {/if}
      {#if paying.tip > 0}
        <dt class="soft">Tip</dt>
        <dd class="flex flex-wrap items-center gap-3">
          <span class="figure">{money.text(paying.tip)}</span>
          <button
            type="button"
            class="soft min-h-12 underline"
            onclick={() => stall.slip.say({ tip: undefined })}>Remove</button
          >
        </dd>
      {/if}
    </dl>
    {#if cardKey.isPractice}<PracticeOutcome bind:outcome />{/if}
    <div class="flex flex-wrap gap-2">
      <button type="button" class="btn btn-main px-5" disabled={paying.isBusy} onclick={send}
        >{typed.how === 'later' ? 'Hold' : 'Take'} {money.text(inAll)}</button
      >
      <button type="button" class="btn btn-quiet" onclick={() => (review = null)}
        >Change something</button
      >
    </div>
  </div>
{:else}
  <form
    class="grid gap-3 px-4 pb-4 sm:grid-cols-2"
    autocomplete="off"
    onsubmit={(event) => {
      event.preventDefault();
      lookOver();
    }}
  >
    <FileCard {way} {paying} {card} {clears} reference={typed.reference} />
    {#if isOffline}
      <p class="border-accent border-l-8 pl-3 sm:col-span-2">
        No network now: a card can be typed in only with an approval code given by voice.
      </p>
    {/if}
    <Field
      label="Of what is left"
      bind:value={amountTyped}
      inputmode="decimal"
      placeholder={money.plain(paying.left)}
      says={amountWrong}
    />

    <Field
      label={way.reference === '' ? 'Number of the order' : way.reference}
      bind:value={typed.reference}
      maxlength={80}
      data-keyed="reference"
      says={saysOf('reference')}
    />
    <div class="sm:col-span-2">
      <Field
        label={scheme === '' ? 'Card number' : `Card number, ${scheme}`}
        bind:value={typed.number}
        inputmode="numeric"
        autocomplete="off"
        maxlength={25}
        data-keyed="number"
        says={saysOf('number')}
      />
    </div>

    <Field
      label="Expires, month and year"
      bind:value={typed.expiry}
      placeholder="04/29"
      maxlength={7}
      data-keyed="expiry"
      says={saysOf('expiry')}
    />
    {#if typed.how !== 'voice'}
      <Field
        label="Security code"
        bind:value={typed.code}
        inputmode="numeric"
        autocomplete="off"
        maxlength={4}
        help="Used once, kept nowhere"
        data-keyed="code"
        says={saysOf('code')}
      />
    {/if}
    <div class="sm:col-span-2">
      <Field
        label="Name on the card"
        bind:value={typed.holder}
        maxlength={80}
        data-keyed="holder"
        says={saysOf('holder')}
      />
    </div>
    <div class="sm:col-span-2">
      <Field
        label="Street of the billing address"
        bind:value={typed.street}
        maxlength={80}
        data-keyed="street"
        says={saysOf('street')}
      />
    </div>

    <Field
      label="Town"
      bind:value={typed.town}
      maxlength={60}
      data-keyed="town"
      says={saysOf('town')}
    />

    <Field
      label="Postcode"
      bind:value={typed.postcode}
      maxlength={12}
      data-keyed="postcode"
      says={saysOf('postcode')}
    />
    <label class="grid content-start gap-1 font-[560]">
      Country
      <select class="select min-h-12 w-full" bind:value={typed.country}>
        {#each CARD_COUNTRIES as country (country)}
          <option value={country}>{names.of(country)}</option>
        {/each}
      </select>
    </label>
    <label class="grid content-start gap-1 font-[560]">
      How
      <select class="select min-h-12 w-full" bind:value={typed.how}>
        {#each Object.entries(HOW) as [how, words] (how)}
          <option value={how} disabled={isOffline && how !== 'voice'}>{words}</option>
        {/each}
      </select>
    </label>
    {#if typed.how === 'voice'}
      <Field
        label="Approval code"
        bind:value={typed.voice}
        maxlength={12}
        data-keyed="voice"
        says={saysOf('voice')}
      />
    {/if}
    <div class="sm:col-span-2">
      <button class="btn btn-main px-5">Review</button>
    </div>
  </form>
{/if}
