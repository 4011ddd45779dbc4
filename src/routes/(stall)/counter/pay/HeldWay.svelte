<!-- Paying from an account that somebody holds: what a customer may owe, their credit, a voucher. -->
<script lang="ts">
  import ScanLine from '@lucide/svelte/icons/scan-line';
  import { headOfMethod } from '$lib/core/held/held-account';
  import { spendable, type HeldFacts } from '$lib/core/held/spend';
  import { voucherNumber } from '$lib/core/held/voucher-number';
  import { localTime } from '$lib/core/event/local-time';
  import { readAmount } from '$lib/core/money/amount-text';
  import type { WayToPay } from '$lib/core/payment/ways';
  import { heldFacts } from '$lib/device/held-accounts';
  import { live } from '$lib/device/live.svelte';
  import { heldRefusalWords, heldSaying } from '$lib/ui/words/held-words';
  import { refusalWords } from '$lib/ui/words/refusal-words';
  import { useStall } from '../../stall.svelte';
  import CustomerPicker from '../CustomerPicker.svelte';
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

  let number = $state('');
  let typed = $state('');
  let isScanning = $state(false);
  let first = $state<HTMLInputElement>();
  $effect(() => {
    if (matchMedia('(pointer: fine)').matches) first?.focus();
  });

  const facts = live(
    () => {
      const [method, who] = [way.method, { customer: customer?.id ?? null, reference: number }];
      return () => heldFacts(stall.db, method, who);
    },
    undefined as HeldFacts | undefined,
  );
  const day = $derived(localTime(Date.now(), stall.event?.timeZone ?? stall.business.timeZone).day);
  const found = $derived(
    facts.value === undefined
      ? undefined
      : spendable(
          way.method,
          { customer: customer?.id ?? null, reference: number },
          facts.value,
          stall.identity.business,
          day,
        ),
  );
  /** Nothing is said of a number while it is being typed. */
  const isNamed = $derived(isVoucher ? voucherNumber(number).length >= 4 : customer !== null);
  const read = $derived(typed.trim() === '' ? null : readAmount(typed, money.currency));
  const left = $derived(found?.ok === true ? found.left : 0);
  /** All that is left to pay, or all that is there. */
  const amount = $derived(
    read?.ok === true
      ? read.amount
      : headOfMethod(way.method) === 'customer' || left === null
        ? paying.left
        : Math.min(paying.left, left),
  );
  const isOver = $derived(
    way.method === 'account' && left !== null && amount > left && found?.ok === true,
  );
  const saying = $derived.by(() => {
    if (!isNamed || found === undefined || facts.value === undefined) return '';
    if (!found.ok) return heldRefusalWords(found.refusal, money);
    return heldSaying(way.method, facts.value, money);
  });

  async function take(lentBy?: string): Promise<void> {
    if (read?.ok === false) {
      paying.wrong = refusalWords(read.refusal, money);
      return;
    }
    const taken = await paying.take(way, read === null ? null : read.amount, {
      ...(isVoucher ? { reference: number } : {}),
      // Whoever may do it lends it, or does it themselves.
      ...(isOver ? { mayOweMore: true } : {}),
      ...(lentBy === undefined ? {} : { lentBy }),
    });
    if (taken?.ok !== true) return;
    [number, typed] = ['', ''];
    ontaken();
  }
</script>

<form
  class="grid gap-3 px-4 pb-4"
  onsubmit={(event) => {
    event.preventDefault();
    if (!isOver) void take();
  }}
>
  {#if !isVoucher}<CustomerPicker />{/if}
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
    <label class="grid min-w-28 flex-1 gap-1 font-[560]">
      Of what is left
      <input
        bind:value={typed}
        class={['input figure w-full text-xl', paying.wrong !== null && '!border-error']}
        inputmode="decimal"
        autocomplete="off"
        placeholder={found?.ok === true ? money.plain(amount) : ''}
        aria-invalid={paying.wrong !== null}
        oninput={() => (paying.wrong = null)}
      />
    </label>
    {#if isOver}
      <RightButton
        right="owe.over"
        label={`Let them owe ${money.text(amount)}`}
        isBusy={paying.isBusy}
        onGo={(lentBy) => take(lentBy)}
      />
    {:else}
      <button class="btn btn-main px-5" disabled={paying.isBusy || found?.ok !== true}>
        {found?.ok === true
          ? `${way.method === 'account' ? 'They owe' : 'Take'} ${money.text(amount)}`
          : 'Take it'} <kbd class="key max-md:hidden">Enter</kbd>
      </button>
    {/if}
  </div>
  <output class={found?.ok === false && isNamed ? 'text-error' : 'soft'} data-testid="held-says"
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
