<script lang="ts">
  import { goto } from '$app/navigation';
  import Banknote from '@lucide/svelte/icons/banknote';
  import { readAmount } from '$lib/core/money/amount-text';
  import { likelyCash } from '$lib/core/payment/cash-handed';
  import { thingsOn } from '$lib/core/slip/open-slip';
  import ChangeDue from '$lib/ui/cash/ChangeDue.svelte';
  import { refusalWords } from '$lib/ui/words/refusal-words';
  import { useStall } from '../../stall.svelte';
  import PaidSlip from './PaidSlip.svelte';
  import { takeCash, type CashTaken } from '../take-cash';

  const stall = useStall();
  const { slip } = stall;
  const money = $derived(stall.money);
  const due = $derived(slip.quote?.dueInCash ?? 0);
  const likely = $derived(likelyCash(due, money.currency));
  const things = $derived(thingsOn(slip.current));

  let typed = $state('');
  let wrong = $state<string | null>(null);
  let done = $state.raw<Extract<CashTaken, { ok: true }> | null>(null);
  let isBusy = $state(false);
  let field = $state<HTMLInputElement>();

  const read = $derived(typed.trim() === '' ? null : readAmount(typed, money.currency));
  const saying = $derived.by(() => {
    if (read === null) return '';
    if (!read.ok) return refusalWords(read.refusal, money);
    const over = read.amount - due;
    return over < 0
      ? `leaves ${money.text(-over)} to pay`
      : over === 0
        ? 'exact'
        : `${money.spoken(over)} back`;
  });

  async function take(handed: number): Promise<void> {
    if (isBusy) return;
    isBusy = true;
    wrong = null;
    try {
      const taken = await takeCash(stall, handed);
      if (!taken.ok) {
        wrong = refusalWords(taken.refusal, money);
        if (taken.refusal.code === 'slip/gone') await goto('/counter', { replaceState: true });
        else field?.focus();
      } else if (taken.change > 0) {
        done = taken;
      } else {
        await goto('/counter', { replaceState: true });
      }
    } catch (error) {
      wrong = `Nothing was rung up, and the slip is still here: ${error instanceof Error ? error.message : String(error)}`;
    } finally {
      isBusy = false;
    }
  }

  function takeTyped(): void {
    if (read === null) {
      void take(due);
    } else if (read.ok) {
      void take(read.amount);
    } else {
      wrong = refusalWords(read.refusal, money);
      field?.focus();
    }
  }

  function onkeydown(event: KeyboardEvent): void {
    if (done !== null) return;
    if (event.key === 'F9') void take(due);
    else if (event.key === 'Enter' && event.ctrlKey) takeTyped();
    else if (event.key === 'Escape') void goto('/counter');
    else return;
    event.preventDefault();
  }

  $effect(() => {
    if (matchMedia('(pointer: fine)').matches) field?.focus();
  });
  // Reloaded, or rung up in another window: there is nothing here to pay.
  $effect(() => {
    if (slip.isEmpty && done === null && !isBusy) void goto('/counter', { replaceState: true });
  });
</script>

<svelte:window {onkeydown} />

{#if done !== null}
  <ChangeDue
    change={done.change}
    handed={done.handed}
    number={done.number}
    total={done.total}
    {money}
    onnext={() => goto('/counter', { replaceState: true })}
  />
{:else}
  <div class="grid min-h-0 flex-1 md:grid-cols-[minmax(17rem,23rem)_minmax(0,1fr)]">
    <PaidSlip />
    <section
      class="cloth flex min-h-0 flex-1 flex-col gap-4 overflow-y-auto p-4 pt-7 md:p-7 md:pt-9"
      aria-label="Payment"
    >
      <div class="flex flex-wrap items-end justify-between gap-3">
        <div>
          <h1 class="soft text-lg font-[560]">Left to pay</h1>
          <p class="amount text-[clamp(3.6rem,14vw,6.5rem)] leading-none" data-testid="left-to-pay">
            {money.text(due)}
          </p>
        </div>
        <p class="soft">
          {things}
          {things === 1 ? 'thing' : 'things'} · into {stall.drawer?.name ?? 'no drawer'}
        </p>
      </div>
      {#if stall.drawer === undefined}
        <p class="sheet border-accent border-l-8">
          No drawer is open on this device. <a class="plain" href="/">Open one</a>; the slip waits
          here.
        </p>
      {/if}
      <div
        class="mt-auto grid grid-cols-2 gap-2.5 md:mt-0 lg:grid-cols-5"
        role="group"
        aria-label="Cash"
      >
        <button
          type="button"
          class="btn btn-main !min-h-19 flex-col !gap-0 max-lg:order-last max-lg:col-span-2"
          disabled={isBusy || stall.drawer === undefined}
          onclick={() => take(due)}
        >
          <span class="amount text-2xl">{money.text(due)}</span>
          <span class="text-sm">exact <kbd class="key max-md:hidden">F9</kbd></span>
        </button>
        {#each likely as handed (handed)}
          <button
            type="button"
            class="btn bg-card border-primary !min-h-19 flex-col !gap-0 border-2"
            disabled={isBusy || stall.drawer === undefined}
            onclick={() => take(handed)}
          >
            <span class="amount text-2xl">{money.denomination(handed)}</span>
            <span class="text-sm">{money.spoken(handed - due)} back</span>
          </button>
        {/each}
      </div>
      <form
        class="sheet flex flex-wrap items-center gap-3 !rounded-[0.875rem]"
        onsubmit={(event) => {
          event.preventDefault();
          takeTyped();
        }}
      >
        <Banknote aria-hidden="true" class="size-6" />
        <label class="text-lg font-[560] max-md:min-w-0 max-md:grow max-md:basis-[60%]" for="handed"
          >Cash, other amount</label
        >
        <input
          id="handed"
          bind:this={field}
          bind:value={typed}
          class={[
            'input figure w-28 flex-1 text-xl max-md:order-1 md:w-36 md:flex-none',
            wrong !== null && '!border-error',
          ]}
          inputmode="decimal"
          autocomplete="off"
          placeholder="type it"
          aria-invalid={wrong !== null}
          aria-describedby="handed-says"
          oninput={() => (wrong = null)}
        />
        <output
          id="handed-says"
          class="soft min-w-24 flex-1 max-md:order-3 max-md:-mt-2 max-md:basis-full"
          >{saying}</output
        >
        <button
          class="btn btn-quiet max-md:order-2"
          disabled={isBusy || read === null || stall.drawer === undefined}
        >
          Take it <kbd class="key max-md:hidden">Enter</kbd>
        </button>
        {#if wrong !== null}<p class="text-error order-3 basis-full" role="alert">{wrong}</p>{/if}
      </form>
      <a class="btn btn-quiet md:mt-auto md:self-start" href="/counter"
        >Back to the slip <kbd class="key max-md:hidden">Esc</kbd></a
      >
    </section>
  </div>
{/if}
