<!-- Paying from an account that somebody holds: what a customer may owe, their credit, a voucher. -->
<script lang="ts">
  import ScanLine from '@lucide/svelte/icons/scan-line';
  import { heldPart } from '$lib/core/held/held-part';
  import type { HeldFacts } from '$lib/core/held/spend';
  import { voucherNumber } from '$lib/core/held/voucher-number';
  import { localTime } from '$lib/core/event/local-time';
  import { readAmount } from '$lib/core/money/amount-text';
  import type { WayToPay } from '$lib/core/payment/ways';
  import { purposeSale } from '$lib/core/sale/take-part';
  import { heldFacts } from '$lib/device/held-accounts';
  import { live } from '$lib/device/live.svelte';
  import { heldRefusalWords, heldSaying } from '$lib/ui/words/held-words';
  import { refusalWords } from '$lib/ui/words/refusal-words';
  import { useStall } from '../../stall.svelte';
  import CustomerPicker from '../CustomerPicker.svelte';
  import OfWhatIsLeft from './OfWhatIsLeft.svelte';
  import RightButton from '../../RightButton.svelte';
  import ScanCamera from '../ScanCamera.svelte';
  import type { Paying } from './paying.svelte';

  interface Props {
    way: WayToPay;
    paying: Paying;
    ontaken: () => void;
  }
  const { way, paying, ontaken }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  const isVoucher = $derived(way.method === 'voucher');
  const customer = $derived(stall.slip.current.customer ?? null);

  /** The order that is handed over, whose deposit it can be. */
  const order = $derived(stall.slip.current.handsOver);

  let number = $state('');
  let typed = $state('');
  let isScanning = $state(false);
  let first = $state<HTMLInputElement>();
  $effect(() => {
    if (matchMedia('(pointer: fine)').matches) first?.focus();
  });

  const facts = live(
    () => {
      const { method } = way;
      const who = { customer: customer?.id ?? null, reference: number, order };
      return () => heldFacts(stall.db, method, who);
    },
    undefined as HeldFacts | undefined,
  );
  const day = $derived(localTime(Date.now(), stall.event?.timeZone ?? stall.business.timeZone).day);
  /** Nothing is said of a number while it is being typed. */
  const isNamed = $derived(
    isVoucher ? voucherNumber(number).length >= 4 : way.method === 'deposit' || customer !== null,
  );
  const read = $derived(typed.trim() === '' ? null : readAmount(typed, money.currency));
  /** What would be taken, as it will be; more than was agreed somebody with the right to it lets them owe. */
  const part = $derived(
    facts.value === undefined || stall.slip.quote === null
      ? null
      : heldPart({
          ...{ method: way.method, customer: customer?.id ?? null, reference: number, order },
          ...{ amount: read?.ok === true ? read.amount : null, left: paying.left, tip: paying.tip },
          ...{ facts: facts.value, mayOweMore: true, business: stall.identity.business, day },
          most: stall.isOutOfTouch ? way.offlineMost : null,
          sale: purposeSale(stall.slip.current, stall.slip.quote, stall.taxes),
        }),
  );
  const taken = $derived(part?.ok === true ? part : null);
  const saying = $derived.by(() => {
    if (!isNamed || facts.value === undefined || part === null) return '';
    return part.ok
      ? heldSaying(way.method, facts.value, money)
      : heldRefusalWords(part.refusal, money);
  });

  async function take(lentBy?: string): Promise<void> {
    if (read?.ok === false) {
      paying.wrong = refusalWords(read.refusal, money);
      return;
    }
    const done = await paying.take(way, read === null ? null : read.amount, {
      ...(isVoucher ? { reference: number } : {}),
      // Whoever may do it lends it, or does it themselves.
      ...(taken?.isOverLimit === true ? { mayOweMore: true } : {}),
      ...(lentBy === undefined ? {} : { lentBy }),
    });
    if (done?.ok !== true) return;
    [number, typed] = ['', ''];
    ontaken();
  }
</script>

<form
  class="grid gap-3 px-4 pb-4"
  onsubmit={(event) => {
    event.preventDefault();
    if (taken?.isOverLimit !== true) void take();
  }}
>
  {#if !isVoucher && way.method !== 'deposit'}<CustomerPicker />{/if}
  <div class="flex flex-wrap items-end gap-3">
    {#if isVoucher}
      <label class="grid min-w-44 flex-1 gap-1 font-[560]">
        Number
        <input
          bind:this={first}
          bind:value={number}
          class="input code w-full text-lg"
          maxlength="60"
          autocomplete="off"
          autocapitalize="characters"
          spellcheck="false"
          oninput={() => (paying.wrong = null)}
        />
      </label>
      <button
        type="button"
        class="btn btn-quiet"
        aria-label="Scan it with the camera"
        onclick={() => (isScanning = true)}><ScanLine aria-hidden="true" class="size-6" /></button
      >
    {/if}
    <OfWhatIsLeft
      bind:typed
      {paying}
      placeholder={taken === null ? '' : money.plain(taken.amount)}
    />
    {#if taken?.isOverLimit === true}
      <RightButton
        right="owe.over"
        label={`Let them owe ${money.text(taken.amount)}`}
        isBusy={paying.isBusy}
        onGo={(lentBy) => take(lentBy)}
      />
    {:else}
      <button class="btn btn-main px-5" disabled={paying.isBusy || taken === null}>
        {taken === null
          ? 'Take it'
          : `${way.method === 'account' ? 'They owe' : 'Take'} ${money.text(taken.amount)}`}
        <kbd class="key max-md:hidden">Enter</kbd>
      </button>
    {/if}
  </div>
  <output class={part?.ok === false && isNamed ? 'text-error' : 'soft'} data-testid="held-says"
    >{saying}</output
  >
  {#if paying.wrong !== null}<p class="text-error" role="alert">{paying.wrong}</p>{/if}
</form>
{#if isScanning}
  <ScanCamera
    onfound={(code) => {
      isScanning = false;
      number = code;
    }}
    onclose={() => (isScanning = false)}
  />
{/if}
