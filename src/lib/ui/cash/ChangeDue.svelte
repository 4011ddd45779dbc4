<script lang="ts">
  import { currencyOf } from '../../core/money/currency';
  import { piecesOf } from '../../core/payment/cash-handed';
  import type { MoneyWords } from '../words/money-words';

  interface Props {
    change: number;
    handed: number;
    /** Of the sale; null while something is left to pay. */
    number: string | null;
    total: number;
    money: MoneyWords;
    /** What else the customer is to hear. */
    told?: readonly string[];
    onnext: () => void;
  }
  const { change, handed, number, total, money, told = [], onnext }: Props = $props();
  const { pieces } = $derived(piecesOf(change, money.currency));
  const notes = $derived(new Set(currencyOf(money.currency).notes));
  let next = $state<HTMLButtonElement>();
  $effect(() => next?.focus());
</script>

<section
  class="cloth flex min-h-0 flex-1 flex-col gap-4 overflow-y-auto p-4 pt-8 md:p-10"
  aria-label="Change"
>
  <p class="text-lg">
    {#if number === null}
      {money.text(handed)} is safe; something is left to pay
    {:else}
      <b>{number}</b> is rung up and safe · {money.text(total)} of {money.text(handed)}
    {/if}
  </p>
  <div>
    <h1 class="soft text-xl font-[560]">Change to give</h1>
    <p class="amount text-[clamp(4rem,16vw,8rem)] leading-none" data-testid="change">
      {money.text(change)}
    </p>
  </div>
  <ul class="flex flex-wrap gap-3" aria-label="Notes and coins to give">
    {#each pieces as { value, count } (value)}
      <li
        class={[
          'sheet amount grid place-items-center !p-3 text-2xl',
          notes.has(value)
            ? 'border-primary min-h-16 min-w-28 border-2'
            : 'border-base-300 h-20 min-w-20 !rounded-full border-2 whitespace-nowrap',
        ]}
      >
        {count > 1 ? `${count} × ` : ''}{money.denomination(value)}
      </li>
    {/each}
  </ul>
  {#each told as each (each)}<p class="text-lg" data-testid="told">{each}</p>{/each}
  <div class="mt-auto">
    <button
      bind:this={next}
      type="button"
      class="btn btn-main w-full justify-between px-6 md:max-w-md"
      onclick={onnext}
    >
      {number === null ? 'Go on with the payment' : 'Next customer'}
      <kbd class="key max-md:hidden">Enter</kbd>
    </button>
  </div>
</section>
