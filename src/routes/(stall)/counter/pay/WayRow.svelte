<script lang="ts">
  import Award from '@lucide/svelte/icons/award';
  import Banknote from '@lucide/svelte/icons/banknote';
  import Coins from '@lucide/svelte/icons/coins';
  import CreditCard from '@lucide/svelte/icons/credit-card';
  import HandCoins from '@lucide/svelte/icons/hand-coins';
  import Landmark from '@lucide/svelte/icons/landmark';
  import NotebookPen from '@lucide/svelte/icons/notebook-pen';
  import PiggyBank from '@lucide/svelte/icons/piggy-bank';
  import PhoneCall from '@lucide/svelte/icons/phone-call';
  import Sprout from '@lucide/svelte/icons/sprout';
  import TicketCheck from '@lucide/svelte/icons/ticket-check';
  import ScrollText from '@lucide/svelte/icons/scroll-text';
  import { readAmount } from '$lib/core/money/amount-text';
  import { chequeReference } from '$lib/core/payment/cheque';
  import type { WayToPay } from '$lib/core/payment/ways';
  import { newSalt } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { pointsWords } from '$lib/ui/words/points-words';
  import { refusalWords } from '$lib/ui/words/refusal-words';
  import { useStall } from '../../stall.svelte';
  import type { CardKey } from '$lib/device/database';
  import CustomerPicker from '../CustomerPicker.svelte';
  import { isHeldMethod } from '$lib/core/held/held-account';
  import FileCard from './FileCard.svelte';
  import HeldWay from './HeldWay.svelte';
  import PromotionWay from './PromotionWay.svelte';
  import { isPromotion } from '$lib/core/points/promotion-methods';
  import KeyedCard from './KeyedCard.svelte';
  import type { CardReader } from '$lib/device/cards/card-reader';
  import type { CardSteps } from './card-steps.svelte';
  import type { Paying } from './paying.svelte';
  import type { Promotions } from './promotions.svelte';

  interface Props {
    way: WayToPay;
    paying: Paying;
    promotions: Promotions;
    card: CardSteps;
    reader: CardReader | null;
    cardKey: CardKey | null;
    isOpen: boolean;
    ontoggle: () => void;
    ontaken: () => void;
  }
  const { way, paying, promotions, card, reader, cardKey, isOpen, ontoggle, ontaken }: Props =
    $props();
  const stall = useStall();
  const money = $derived(stall.money);
  const ICONS = {
    cash: Banknote,
    card: CreditCard,
    keyed: PhoneCall,
    cheque: ScrollText,
    transfer: Landmark,
    own: Coins,
    account: NotebookPen,
    credit: HandCoins,
    voucher: TicketCheck,
    deposit: PiggyBank,
    points: Sprout,
    reward: Award,
  };
  const method = $derived(way.method);
  const Icon = $derived(ICONS[method]);
  const isCash = $derived(method === 'cash');

  let typed = $state('');
  let reference = $state('');
  /** Of a cheque. */
  let bank = $state('');
  let payer = $state('');
  let field = $state<HTMLInputElement>();
  const read = $derived(typed.trim() === '' ? null : readAmount(typed, money.currency));
  /** For the goods: what is handed over on the cash side, what is cleared on the card side. */
  const amount = $derived(
    read?.ok === true
      ? read.amount - (isCash ? paying.tip : 0)
      : read === null
        ? paying.left
        : null,
  );
  const would = $derived(amount === null ? null : paying.charge(way, amount));
  const full = $derived(paying.charge(way, paying.left));
  const inAll = (part: { charge: number; surcharge: number }): number =>
    part.charge + part.surcharge + paying.tip;
  /** What the customer has of it. */
  const promotionHint = $derived.by(() => {
    if (stall.slip.current.customer === undefined) return 'needs a customer';
    if (method === 'points') {
      const pays = promotions.would(way, null);
      return pays?.ok === true
        ? `${pointsWords(pays.promotion.taken, money)}, ${money.text(pays.amount)}`
        : 'none to spend';
    }
    const reached = promotions.rewards.filter(({ times }) => times > 0);
    return reached.length === 0
      ? 'none reached'
      : reached.map(({ reward }) => reward.name).join(', ');
  });
  const hint = $derived.by(() => {
    if (isCash) return 'type it';
    if (method === 'card' && reader === null) return 'no reader here';
    if (method === 'voucher') return 'by its number';
    if (method === 'deposit') return 'of the order that is handed over';
    if (isPromotion(method)) return promotionHint;
    if (way.needsCustomer && stall.slip.current.customer === undefined) return 'needs a customer';
    return '';
  });
  /** What will happen, before it does. */
  const saying = $derived.by(() => {
    if (read?.ok === false) return refusalWords(read.refusal, money);
    if (amount === null || amount <= 0) return 'That is not more than the tip.';
    const over = isCash && read !== null ? amount + paying.tip - paying.cashDue : 0;
    if (over > 0) return `${money.spoken(over)} back`;
    if (would === null)
      return way.givesChange ? '' : `More than the ${money.text(paying.left)} that is left.`;
    const leaves = paying.left - Math.min(amount, paying.left);
    return [
      leaves > 0 ? `leaves ${money.text(leaves)} to pay` : 'exact',
      would.charge !== amount && way.side === 'card'
        ? `card price ${money.text(would.charge)}`
        : '',
      would.surcharge > 0 ? `${money.text(would.surcharge)} surcharge` : '',
      paying.tip > 0 ? `${money.text(paying.tip)} tip` : '',
    ]
      .filter((part) => part !== '')
      .join(' · ');
  });
  const button = $derived(
    would === null || (isCash && read === null)
      ? 'Take it'
      : `${method === 'card' ? 'Ask for' : 'Take'} ${money.text(inAll(would))}`,
  );

  /** What opens at the foot of a phone must not open below it. */
  let element: HTMLElement;
  $effect(() => {
    if (!isOpen) return;
    const isDesk = matchMedia('(pointer: fine)').matches;
    if (isDesk) field?.focus();
    element.scrollIntoView({ block: isDesk ? 'nearest' : 'start' });
  });

  async function take(): Promise<void> {
    if (read?.ok === false || amount === null) {
      paying.wrong = read?.ok === false ? refusalWords(read.refusal, money) : saying;
      field?.focus();
      return;
    }
    if (method === 'card' && reader !== null) {
      await card.begin(way, amount, reader, { reference });
      return;
    }
    const taken = await paying.take(way, read === null ? null : amount, {
      reference:
        method === 'cheque' ? chequeReference(reference, bank, way.reference !== '') : reference,
      ...(payer.trim() === '' ? {} : { payer: { name: payer, signature: [], salt: newSalt() } }),
    });
    if (taken?.ok !== true) return;
    [typed, reference, bank, payer] = ['', '', '', ''];
    ontaken();
  }
</script>

<div
  class={[
    'sheet scroll-mt-10 !p-0',
    isOpen ? '!border-primary border-2 lg:col-span-2' : 'border-base-300 border-2',
  ]}
  data-way={way.id}
  bind:this={element}
>
  <button
    type="button"
    class="flex min-h-16 w-full items-center gap-4 px-4 text-left"
    aria-expanded={isOpen}
    onclick={ontoggle}
  >
    <Icon aria-hidden="true" class="size-6 shrink-0" />
    <span class="min-w-0 flex-1 text-lg font-[560]"
      >{isCash ? `${way.name}, other amount` : way.name}</span
    >
    {#if hint !== ''}<span class="soft">{hint}</span>
    {:else if full !== null}<span class="amount text-xl">{money.figure(inAll(full))}</span>{/if}
  </button>
  {#if isOpen && method === 'keyed'}
    <KeyedCard {way} {paying} {card} {cardKey} />
  {:else if isOpen && isPromotion(method)}
    <PromotionWay {way} {paying} {promotions} {ontaken} />
  {:else if isOpen && isHeldMethod(method)}
    <HeldWay {way} {paying} {ontaken} />
  {:else if isOpen}
    <form
      class="grid gap-3 px-4 pb-4"
      onsubmit={(event) => {
        event.preventDefault();
        void take();
      }}
    >
      {#if way.needsCustomer}<CustomerPicker />{/if}
      {#if method === 'card'}<FileCard {way} {paying} {card} {reference} clears={amount} />{/if}
      <div class="flex flex-wrap items-end gap-3">
        <label class="grid min-w-28 flex-1 gap-1 font-[560]">
          {isCash ? 'Handed over' : 'Of what is left'}
          <input
            bind:this={field}
            bind:value={typed}
            class={['input figure w-full text-xl', paying.wrong !== null && '!border-error']}
            inputmode="decimal"
            autocomplete="off"
            placeholder={isCash ? money.plain(paying.cashDue) : money.plain(paying.left)}
            aria-invalid={paying.wrong !== null}
            aria-describedby="says-{way.id}"
            oninput={() => (paying.wrong = null)}
          />
        </label>
        {#if way.reference !== '' || method === 'cheque'}
          <label class="grid min-w-36 flex-1 gap-1 font-[560]">
            {way.reference === '' ? 'Cheque number' : way.reference}
            <input
              class="input code w-full"
              bind:value={reference}
              maxlength="80"
              autocomplete="off"
              oninput={() => (paying.wrong = null)}
            />
          </label>
        {/if}
        {#if method === 'cheque'}
          <div class="min-w-36 flex-1">
            <Field label="Bank" bind:value={bank} maxlength={48} autocomplete="off" />
          </div>
          <div class="min-w-36 flex-1">
            <Field label="Whose cheque" bind:value={payer} maxlength={80} autocomplete="off" />
          </div>
        {/if}
        <button
          class={['btn px-5', isCash && read === null ? 'btn-quiet' : 'btn-main']}
          disabled={paying.isBusy ||
            (isCash && stall.drawer === undefined) ||
            (method === 'card' && reader === null)}
        >
          {button} <kbd class="key max-md:hidden">Enter</kbd>
        </button>
      </div>
      <output id="says-{way.id}" class="soft">{saying}</output>
      {#if paying.wrong !== null}<p class="text-error" role="alert">{paying.wrong}</p>{/if}
    </form>
  {/if}
</div>
