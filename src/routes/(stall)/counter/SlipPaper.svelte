<script lang="ts">
  import Check from '@lucide/svelte/icons/check';
  import { MediaQuery } from 'svelte/reactivity';
  import { goto } from '$app/navigation';
  import { CASH_WAY } from '$lib/core/payment/ways';
  import { discountText } from '$lib/core/slip/read-discount';
  import { thingsOn } from '$lib/core/slip/open-slip';
  import { customerHolds } from '$lib/device/held-accounts';
  import { live } from '$lib/device/live.svelte';
  import SlipLine from '$lib/ui/counter/SlipLine.svelte';
  import { painted } from '$lib/ui/frame/painted';
  import { earnedWords } from '$lib/ui/words/points-words';
  import { holdsWords } from '$lib/ui/words/held-words';
  import { useStall } from '../stall.svelte';
  import BackLines from './BackLines.svelte';
  import LackedRight from './LackedRight.svelte';
  import SlipLineMore from './SlipLineMore.svelte';
  import SlipMore from './SlipMore.svelte';

  interface Props {
    class: string;
    onquantity: (key: string, typed: string) => string | null;
    onexact: () => void;
    onaside: () => void;
    moreDialog: HTMLDialogElement | undefined;
  }
  let { class: place, onquantity, onexact, onaside, moreDialog = $bindable() }: Props = $props();

  const stall = useStall();
  const { slip, db } = stall;
  const money = $derived(stall.money);
  const quote = $derived(slip.quote?.cash);
  const lines = $derived(slip.current.lines);
  const tax = $derived(quote?.taxes.reduce((all, { amount }) => all + amount, 0) ?? 0);
  const total = $derived(quote?.total ?? 0);
  /** One that was taken up can be put back with nothing on it too: then it is no more. */
  const canKeep = $derived(
    (lines.length > 0 || slip.current.kept !== undefined) && !slip.isPartPaid,
  );
  const canPay = $derived(lines.length > 0 && stall.slipLacks.length === 0);
  /** What comes back pays for all of it. */
  const isExchanged = $derived(slip.current.back !== undefined && slip.left === 0);
  /** An event may leave cash out. */
  const takesCash = $derived(stall.ways.some(({ id }) => id === CASH_WAY.id));
  const things = $derived(thingsOn(slip.current));
  const asideWord = $derived(slip.current.kept === undefined ? 'Set aside' : 'Put back');
  /** What the customer has and owes, from this device's rows. */
  const held = live(() => {
    const { customer } = slip.current;
    return () => (customer === undefined ? undefined : customerHolds(db, customer));
  }, undefined);
  /** What was said of the whole slip, in a line. */
  const said = $derived.by(() => {
    const { customer, group, discount, note, handsOver } = slip.current;
    const service = quote?.serviceCharge ?? 0;
    const holds = held.value === undefined ? '' : holdsWords(held.value, money);
    return [
      [customer?.name ?? '', holds].filter((part) => part !== '').join(' '),
      handsOver === undefined ? '' : `hands over ${handsOver.number}`,
      group === undefined ? '' : `${group.name}, ${group.percent} % off`,
      discount === undefined
        ? ''
        : `${discountText(discount, (each) => money.text(each))} off the whole`,
      service === 0 ? '' : `service ${money.text(service)}`,
      note ?? '',
    ]
      .filter((part) => part !== '')
      .join(' · ');
  });
  const isOnTop = $derived(!stall.business.pricesIncludeTax);

  let open = $state<string | null>(null);
  /** On a phone the slip lies at the bottom; pulled up it shows every line. */
  let wantsAll = $state(false);
  const isPulledUp = $derived(wantsAll && lines.length > 0);
  const isDesk = new MediaQuery('(min-width: 768px)');
  const isFolded = $derived(!isDesk.current && !isPulledUp);
  /** On a low screen the goods need the room: a folded slip is its last line and what it comes to. */
  const isLow = new MediaQuery('(max-height: 700px)');
  const folded = $derived(isLow.current ? 1 : 2);
  const hidden = $derived(isFolded ? Math.max(0, lines.length - folded) : 0);
  /** Where the lower of the two lines stands that a folded slip shows: the one touched last. */
  const lower = $derived.by(() => {
    const touched = lines.findIndex(({ key }) => key === slip.current.touched);
    return Math.max(1, touched === -1 ? lines.length - 1 : touched);
  });
  /** The one above it follows a frame later: what was touched and the total are painted first. */
  let above = $state<string | undefined>();
  $effect(() => {
    const key = lines[lower - 1]?.key;
    void painted().then(() => (above = key));
  });
  const shown = $derived.by(() => {
    if (!isFolded) return lines;
    if (isLow.current)
      return [lines[lines.length === 1 ? 0 : lower]].filter((line) => line !== undefined);
    const newest = lines[lower];
    const isSettled = newest === undefined || newest.key !== slip.current.touched;
    const before = isSettled
      ? undefined
      : lines.find(({ key }) => key === above && key !== newest.key);
    return [before ?? lines[lower - 1], newest].filter((line) => line !== undefined);
  });

  const last = live(
    () => async () => {
      const [head] = await Promise.all([db.read('head'), db.read('applied')]);
      const id = head?.lastSale ?? null;
      return id === null ? undefined : await db.books.sales.get(id);
    },
    undefined,
  );

  let list = $state<HTMLElement>();
  $effect(() => {
    if (!isFolded && lines.length > 0) list?.scrollTo({ top: list.scrollHeight });
  });
</script>

<section
  class={['flex min-h-0 flex-col md:px-4.5 md:pb-4', isPulledUp ? 'pulled-up' : 'folded', place]}
  aria-label="Slip"
>
  <div class="relative flex min-h-0 flex-1 flex-col">
    <!-- The paper lies behind what is written on it, so that a new line does not tear it anew. -->
    <div class="paper-shade absolute inset-0">
      <div class="paper max-md:torn-above md:torn-below h-full"></div>
    </div>
    <div class="relative flex min-h-0 flex-1 flex-col px-3.5 pt-3 md:px-4.5 md:pt-7 md:pb-6">
      {#if isDesk.current}
        <div class="flex items-baseline justify-between">
          <h2>{slip.current.kept?.name || slip.current.customer?.name || 'Slip'}</h2>
          <span class="soft">{stall.seller?.name ?? ''}</span>
        </div>
        <div class="flex gap-2 py-1">
          <button type="button" class="btn btn-quiet flex-1" disabled={!canKeep} onclick={onaside}
            >{asideWord} <kbd class="key">F4</kbd></button
          >
          <button type="button" class="btn btn-quiet" onclick={() => moreDialog?.showModal()}
            >More …</button
          >
        </div>
      {:else}
        <div class="-mt-2 flex items-center">
          <button
            type="button"
            class="soft min-h-12 px-1 text-left font-[560] disabled:opacity-50"
            disabled={!canKeep}
            onclick={onaside}>{asideWord}</button
          >
          <button
            type="button"
            class="mx-auto grid h-12 min-w-0 flex-1 place-items-center"
            aria-expanded={isPulledUp}
            aria-label={isPulledUp
              ? 'Lower the slip'
              : `${hidden > 0 ? `${String(hidden)} more: ` : ''}Pull the slip up`}
            disabled={lines.length === 0}
            onclick={() => {
              wantsAll = !wantsAll;
              open = null;
            }}
          >
            {#if hidden > 0}<span class="soft text-sm">{hidden} more</span>
            {:else}<span class="bg-base-300 h-1.5 w-14 rounded-full"></span>{/if}
          </button>
          <button
            type="button"
            class="soft min-h-12 px-1 font-[560]"
            onclick={() => moreDialog?.showModal()}>More …</button
          >
        </div>
      {/if}
      <ul
        bind:this={list}
        class={['min-h-0 flex-1 overflow-y-auto', isPulledUp && 'max-md:max-h-[60dvh]']}
        aria-label="Lines"
      >
        {#each shown as line, row (isFolded ? row : line.key)}
          <SlipLine
            {line}
            {money}
            amount={quote?.lines[isFolded ? lines.indexOf(line) : row]?.net ?? 0}
            isNew={slip.current.touched === line.key}
            isOpen={open === line.key}
            ontoggle={() => {
              open = open === line.key ? null : line.key;
              if (open !== null) wantsAll = true;
            }}
            onquantity={(typed) => onquantity(line.key, typed)}
            onremove={() => {
              open = null;
              slip.remove(line.key);
            }}
          >
            {#snippet more()}<SlipLineMore {line} />{/snippet}
          </SlipLine>
        {:else}
          <li class="soft py-3">
            {#if last.value}
              <Check aria-hidden="true" class="text-secondary -mt-1 inline size-5" />
              <a
                class="plain text-base-content font-[600]"
                href="/sales/{last.value.id}"
                data-testid="last-sale">{last.value.number}, {money.text(last.value.total)}</a
              >
              is rung up.
              {#if last.value.earned != null}
                <span class="text-base-content" data-testid="told"
                  >{earnedWords(last.value.earned, money).join('. ')}.</span
                >
              {/if}
            {/if}
            Tap goods, or type.
          </li>
        {/each}
      </ul>
      <BackLines canLeaveOut />
      {#if slip.fault !== null}
        <p class="text-error py-2 font-[600]" role="alert">
          This slip is not safe yet: {slip.fault} It can still be paid; do not close this window.
        </p>
      {/if}
      {#if slip.isPartPaid}
        <p class="border-accent border-l-8 py-1 pl-3 text-sm" role="status" data-testid="part-paid">
          {money.text(total - slip.left)} of {money.text(total)} has been taken. Go on with the payment,
          or give it back there.
        </p>
      {/if}
      <LackedRight />
      {#if said !== ''}<p class="soft py-1 text-sm" data-testid="slip-said">{said}</p>{/if}
      {#if slip.takenOff !== null}
        <div class="flex flex-wrap items-center justify-between gap-2 py-1.5" role="status">
          <span class="soft">{slip.takenOff.name} is off the slip</span>
          <button type="button" class="btn btn-quiet" onclick={() => slip.undo()}>Undo</button>
        </div>
      {/if}
      {#if isDesk.current}
        <div class="grid grid-cols-[1fr_auto] gap-y-0.5 pt-2">
          {#if isOnTop}
            <span class="soft">Before tax</span><span class="figure soft text-right"
              >{money.figure(total - tax)}</span
            >
          {/if}
          <span class="soft">{isOnTop ? 'Tax on top' : 'Tax in it'}</span>
          <span class="figure soft text-right" data-testid="tax">{money.figure(tax)}</span>
          <span class="self-end font-[600]">{things} {things === 1 ? 'thing' : 'things'}</span>
          <span class="amount text-right text-[2.6rem] leading-none" data-testid="total"
            >{money.text(total)}</span
          >
        </div>
      {/if}
    </div>
  </div>
  <div
    class="paper grid gap-2 px-3.5 pt-2 pb-2 max-md:grid-cols-[auto_minmax(0,1fr)] md:!border-0 md:bg-transparent md:px-0"
  >
    <button
      type="button"
      class="btn btn-quiet"
      disabled={!canPay || !takesCash || isExchanged}
      onclick={onexact}
    >
      <span class="max-md:hidden">Exact cash</span><span class="md:hidden">Exact<br />cash</span>
      <kbd class="key max-md:hidden">F9</kbd>
    </button>
    <button
      type="button"
      class="btn btn-main flex-wrap justify-between px-5"
      disabled={!canPay}
      onclick={() => goto('/counter/pay')}
    >
      <span>{slip.over > 0 ? 'Give back' : 'Take payment'}</span>
      <span class="flex items-center gap-2">
        <span class="figure" data-testid="to-pay"
          >{money.text(slip.over > 0 ? slip.over : slip.left)}</span
        >
        <kbd class="key max-md:hidden">F2</kbd>
      </span>
    </button>
  </div>
</section>
<SlipMore bind:dialog={moreDialog} />

<style>
  /* Of a size of its own: what is written on the slip moves nothing else, and is soon painted. */
  .folded {
    height: min(15.9rem, 60dvh);
    contain: strict;
  }
  /* As SlipPaper folds it there: the last line and the total. */
  @media (max-height: 700px) {
    .folded {
      height: 12.4rem;
    }
  }
  @media (min-width: 768px) {
    .folded,
    .pulled-up {
      height: auto;
      contain: strict;
    }
  }
</style>
