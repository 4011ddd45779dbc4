<script lang="ts">
  import { keyOf } from '$lib/ui/counter/keys';
  import { onDestroy } from 'svelte';
  import { goto } from '$app/navigation';
  import { likelyCash } from '$lib/core/payment/cash-handed';
  import { isDepositWay } from '../take-order';
  import { CASH_WAY } from '$lib/core/payment/ways';
  import { thingsOn } from '$lib/core/slip/open-slip';
  import ChangeDue from '$lib/ui/cash/ChangeDue.svelte';
  import { earnedWords } from '$lib/ui/words/points-words';
  import { useStall } from '../../stall.svelte';
  import LackedRight from '../LackedRight.svelte';
  import { cashWay, ringUpNothing } from '../take-payment';
  import { cardKey } from '$lib/device/cards/card-key';
  import type { CardKey } from '$lib/device/database';
  import type { CardReader } from '$lib/device/cards/card-reader';
  import { readerHere } from '$lib/device/cards/reader-here';
  import { CardSteps } from './card-steps.svelte';
  import CardPanel from './CardPanel.svelte';
  import DistantResult from './DistantResult.svelte';
  import PaidSlip from './PaidSlip.svelte';
  import { Promotions } from './promotions.svelte';
  import { Paying } from './paying.svelte';
  import RewardAsk from './RewardAsk.svelte';
  import ShareOut from './ShareOut.svelte';
  import GiveRest from './GiveRest.svelte';
  import Stubs from './Stubs.svelte';
  import TipRow from './TipRow.svelte';
  import WayRow from './WayRow.svelte';

  const stall = useStall();
  const { slip } = stall;
  const paying = new Paying(stall);
  const card = new CardSteps(stall, paying);
  const promotions = new Promotions(paying);
  onDestroy(() => {
    card.goneFrom();
  });
  let reader = $state.raw<CardReader | null>(null);
  let sealing = $state.raw<CardKey | null>(null);
  $effect(() => {
    void cardKey(stall.db, stall.transport).then((known) => {
      sealing = known;
      reader = readerHere(known);
    });
  });
  const money = $derived(stall.money);
  /** What comes back pays for all of it: nothing is left to pay, and something may be given back. */
  const isExchanged = $derived(slip.current.back !== undefined && slip.left === 0);
  const due = $derived(paying.cashDue);
  const likely = $derived(likelyCash(due, money.currency));
  const things = $derived(thingsOn(slip.current));
  /** A deposit pays for what is handed over of its order, at any event, and for nothing else. */
  const ways = $derived.by(() => {
    const others = stall.ways.filter(({ method }) => method !== 'deposit');
    return stall.slip.current.handsOver === undefined
      ? others
      : [...stall.wayRows.filter(isDepositWay), ...others];
  });
  const hasCash = $derived(stall.ways.some(({ id }) => id === CASH_WAY.id));
  const isBlocked = $derived(paying.isBusy || card.isUnderWay || stall.slipLacks.length > 0);
  const hasUplift = $derived(
    slip.quote !== null && slip.quote.card.total !== slip.quote.cash.total,
  );
  const isDesk = matchMedia('(min-width: 768px) and (pointer: fine)').matches;
  // Where cash is taken, what was handed over can be typed at once.
  // svelte-ignore state_referenced_locally
  let open = $state<string | null>(hasCash && isDesk ? CASH_WAY.id : null);
  let isSharing = $state(false);
  /** There is one main action: another way that is open has it. */
  const isCashMain = $derived(open === null || open === CASH_WAY.id);

  /** @param handed With the tip; null is exact. */
  async function takeCash(handed: number | null): Promise<void> {
    await paying.take(cashWay(stall), handed === null ? null : handed - paying.tip);
  }
  const exact = (): Promise<void> => takeCash(null);

  async function onkeydown(event: KeyboardEvent): Promise<void> {
    if (paying.done !== null || paying.change !== null || isSharing || card.isUnderWay) return;
    const key = keyOf(event);
    if (key === 'F9' && hasCash && !isBlocked) await exact();
    else if (key === 'Ctrl + Enter')
      document.querySelector<HTMLFormElement>('[data-way] form')?.requestSubmit();
    else if (key === 'Esc') await goto('/counter');
    else return;
    event.preventDefault();
  }

  // What comes to nothing is rung up at once: there is nothing to ask.
  $effect(() => {
    const isNothing =
      !slip.isEmpty && slip.quote?.cash.total === 0 && slip.current.back === undefined;
    if (isNothing && !paying.isBusy && paying.done === null) void ringUpNothing(stall);
  });
  // Rung up with nothing to give back: the next customer.
  $effect(() => {
    const isLookedAt = paying.change !== null || (paying.done?.distant ?? null) !== null;
    if (paying.done !== null && !isLookedAt) void next();
  });
  // Reloaded, or rung up in another window: there is nothing here to pay.
  $effect(() => {
    if (slip.isEmpty && paying.done === null && !paying.isBusy) void next();
  });
  const next = (): Promise<void> => goto('/counter', { replaceState: true });
</script>

<svelte:window {onkeydown} />

{#if paying.done?.distant}
  <DistantResult done={paying.done} part={paying.done.distant} onnext={next} />
{:else if paying.change !== null}
  <ChangeDue
    change={paying.change.change}
    handed={paying.change.handed}
    number={paying.done?.number ?? null}
    total={paying.done?.total ?? 0}
    told={paying.done?.earned == null ? [] : earnedWords(paying.done.earned, money)}
    {money}
    onnext={() => {
      if (paying.done === null) paying.change = null;
      else void next();
    }}
  />
{:else}
  <div class="grid min-h-0 flex-1 md:grid-cols-[minmax(17rem,23rem)_minmax(0,1fr)]">
    <PaidSlip {paying} />
    <section
      class="cloth flex min-h-0 flex-1 flex-col gap-4 overflow-y-auto p-4 pt-7 md:p-7 md:pt-9"
      aria-label="Payment"
    >
      <div class="flex flex-wrap items-end justify-between gap-3">
        <div>
          <h1 class="soft text-lg font-[560]">
            {slip.over > 0
              ? 'To give back'
              : paying.share === null
                ? 'Left to pay'
                : `Share ${String(paying.share + 1)} of ${String(paying.shares.length)}, left to pay`}
          </h1>
          <p class="amount text-[clamp(3.6rem,14vw,6.5rem)] leading-none" data-testid="left-to-pay">
            {money.text(slip.over > 0 ? slip.over : paying.left)}
          </p>
          {#if paying.share !== null}
            <p class="soft">of {money.text(slip.left)} that are left in all</p>
          {/if}
        </div>
        <div class="grid gap-2 md:justify-items-end">
          <p class="soft">
            {things}
            {things === 1 ? 'thing' : 'things'}{isExchanged
              ? ''
              : ` · into ${stall.drawer?.name ?? 'no drawer'}`}
          </p>
          {#if !card.isUnderWay}
            <div class="flex flex-wrap gap-2">
              {#if !slip.isPartPaid && !isExchanged}
                <button type="button" class="btn btn-quiet" onclick={() => (isSharing = true)}
                  >Share out</button
                >
              {/if}
              <a class="btn btn-quiet" href="/counter/show">Show customer</a>
            </div>
          {/if}
        </div>
      </div>
      {#if paying.shares.length > 0}
        <div class="flex flex-wrap gap-2" role="group" aria-label="Shares">
          {#each paying.shares as { amount }, at (at)}
            {@const left = paying.leftOfEach[at] ?? 0}
            <button
              type="button"
              class={[
                'btn btn-quiet flex-col !gap-0',
                at === paying.share && '!border-primary !border-3',
              ]}
              aria-pressed={at === paying.share}
              disabled={left <= 0}
              onclick={() => paying.choose(at)}
              ><span>{at + 1}: {money.text(amount)}</span><span class="soft text-sm"
                >{left <= 0
                  ? 'paid'
                  : left === amount
                    ? 'to pay'
                    : `${money.text(left)} left`}</span
              ></button
            >
          {/each}
        </div>
      {/if}
      <div class="md:hidden"><Stubs {paying} /></div>
      {#if stall.drawer === undefined}
        <p class="sheet border-accent border-l-8">
          No drawer is open on this device. <a class="plain" href="/">Open one</a> before you take cash;
          the slip waits here.
        </p>
      {/if}
      <LackedRight />
      {#if isExchanged}
        <GiveRest onnext={next} />
      {:else}
        {#if !card.isUnderWay}<RewardAsk {paying} {promotions} />{/if}
        <TipRow />
      {/if}
      <CardPanel {card} {reader} />
      {#if hasCash && !card.isUnderWay && !isExchanged}
        <div
          class="mt-auto grid grid-cols-2 gap-2.5 md:mt-0 lg:grid-cols-5"
          role="group"
          aria-label="Cash"
        >
          <button
            type="button"
            class={[
              'btn !min-h-19 flex-col !gap-0 max-lg:order-last max-lg:col-span-2',
              isCashMain ? 'btn-main' : 'bg-card border-primary border-2',
            ]}
            disabled={isBlocked || stall.drawer === undefined}
            onclick={exact}
          >
            <span class="amount text-2xl">{money.text(due)}</span>
            <span class="text-sm">exact <kbd class="key max-md:hidden">F9</kbd></span>
          </button>
          {#each likely as handed (handed)}
            <button
              type="button"
              class="btn bg-card border-primary !min-h-19 flex-col !gap-0 border-2"
              disabled={isBlocked || stall.drawer === undefined}
              onclick={() => takeCash(handed)}
            >
              <span class="amount text-2xl">{money.denomination(handed)}</span>
              <span class="text-sm">{money.spoken(handed - due)} back</span>
            </button>
          {/each}
        </div>
      {/if}
      {#if paying.wrong !== null && open === null}
        <p class="sheet text-error border-error border-l-8" role="alert">{paying.wrong}</p>
      {/if}
      <div class="grid grid-flow-dense items-start gap-3 lg:grid-cols-2" data-testid="ways">
        {#each card.isUnderWay || isExchanged ? [] : ways as way (way.id)}
          <WayRow
            {way}
            {paying}
            {promotions}
            {card}
            {reader}
            cardKey={sealing}
            isOpen={open === way.id}
            ontoggle={() => {
              open = open === way.id ? null : way.id;
              paying.wrong = null;
            }}
            ontaken={() => {
              // What was opened meanwhile stays open.
              if (open === way.id) open = null;
            }}
          />
        {/each}
      </div>
      <div class="flex flex-wrap gap-2 md:mt-auto">
        {#if !card.isUnderWay}
          <a class="btn btn-quiet" href="/counter"
            >Back to the slip <kbd class="key max-md:hidden">Esc</kbd></a
          >
        {/if}
        {#if hasUplift && !slip.isPartPaid}
          <button
            type="button"
            class={[
              'btn btn-quiet',
              slip.current.isUpliftWaived === true && '!border-primary !border-3',
            ]}
            aria-pressed={slip.current.isUpliftWaived === true}
            onclick={() =>
              slip.say({ isUpliftWaived: slip.current.isUpliftWaived === true ? undefined : true })}
            >Cash price for cards too</button
          >
        {/if}
      </div>
    </section>
  </div>
  {#if isSharing}<ShareOut onclose={() => (isSharing = false)} />{/if}
{/if}
