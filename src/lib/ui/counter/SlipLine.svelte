<script lang="ts">
  import type { Snippet } from 'svelte';
  import Trash from '@lucide/svelte/icons/trash-2';
  import { quantityText, thousandths } from '../../core/money/units';
  import { isPaidIn, type OpenLine } from '../../core/slip/open-slip';
  import { shortDayWords } from '../words/date-words';
  import { quantityWords, type MoneyWords } from '../words/money-words';

  interface Props {
    line: OpenLine;
    /** Minor units, with tax where prices include it. */
    amount: number;
    isNew: boolean;
    isOpen: boolean;
    money: MoneyWords;
    ontoggle: () => void;
    /** Sets the quantity as typed; returns what is wrong, or null. */
    onquantity: (typed: string) => string | null;
    onremove: () => void;
    /** What else can be said of it, when it is open. */
    more: Snippet;
  }
  const { line, amount, isNew, isOpen, money, ontoggle, onquantity, onremove, more }: Props =
    $props();
  const isWhole = $derived(line.unit === '');
  /** An amount and nothing else: there are no two of it. */
  const hasQuantity = $derived(!isPaidIn(line));
  // Both start afresh when the quantity changes, whoever changed it.
  let typed = $derived(quantityText(thousandths(line.quantity)));
  let wrong = $derived.by<string | null>(() => {
    void line.quantity;
    return null;
  });
  const step = (by: number): void => {
    wrong = onquantity(quantityText(thousandths(line.quantity + by * 1000)));
  };
</script>

<li
  class={[
    'border-base-300 border-b border-dashed',
    isNew && 'bg-linear-to-r from-accent/20 to-transparent',
  ]}
>
  <button
    type="button"
    class="grid min-h-12 w-full cursor-pointer grid-cols-[2.1rem_minmax(0,1fr)_4.8rem] items-baseline gap-2 py-1.5 text-left"
    aria-expanded={isOpen}
    onclick={ontoggle}
  >
    <span class="figure font-[650]"
      >{isWhole && hasQuantity ? quantityWords(line.quantity, '') : ''}</span
    >
    <span class="min-w-0 leading-tight">
      <b class="font-[600]">{line.name}</b>
      <span class="soft block text-sm">
        {#if line.until !== undefined}<span class="block"
            >until {shortDayWords(line.until, money.locale)}</span
          >{/if}
        {#if isWhole}{line.detail}{:else}{quantityWords(line.quantity, line.unit)} · {money.figure(
            line.price,
          )} a {line.unit}{/if}
        {#each line.extras ?? [] as extra (extra.name)}<span class="block">with {extra.name}</span
          >{/each}
        {#if line.ordered !== undefined}<span class="block">as it was agreed</span>{/if}
        {#if line.person !== undefined}<span class="block">for {line.person}</span>{/if}
        {#if line.note !== undefined}<span class="block">“{line.note}”</span>{/if}
        {#if line.listPrice !== undefined}<span class="block"
            >was {money.figure(line.listPrice)}: {line.reason}</span
          >{/if}
        {#if line.discount !== undefined}<span class="block"
            >less {'percent' in line.discount
              ? `${line.discount.percent} %`
              : money.figure(line.discount.amount)}</span
          >{/if}
      </span>
    </span>
    <span class="figure text-right font-[600]">{money.figure(amount)}</span>
  </button>
  {#if isOpen}
    <div class="flex flex-wrap items-center gap-2 pb-3">
      {#if isWhole && hasQuantity}
        <button
          type="button"
          class="btn btn-quiet w-14 !px-0 text-2xl"
          aria-label="One fewer"
          disabled={line.quantity <= 1000}
          onclick={() => step(-1)}>−</button
        >
      {/if}
      {#if hasQuantity}<label class="flex items-center gap-2">
          <span class="sr-only">Quantity of {line.name}</span>
          <input
            class={['input figure w-24 text-center', wrong !== null && '!border-error']}
            inputmode="decimal"
            autocomplete="off"
            aria-invalid={wrong !== null}
            bind:value={typed}
            onchange={() => (wrong = onquantity(typed))}
            onfocus={(event) => event.currentTarget.select()}
          />
          {line.unit}
        </label>{/if}
      {#if isWhole && hasQuantity}
        <button
          type="button"
          class="btn btn-quiet w-14 !px-0 text-2xl"
          aria-label="One more"
          onclick={() => step(1)}>+</button
        >
      {/if}
      <button type="button" class="btn btn-quiet text-error ml-auto" onclick={onremove}>
        <Trash aria-hidden="true" class="size-5" /><span class="md:sr-only">Remove</span>
      </button>
      {#if wrong !== null}<p class="text-error basis-full" role="alert">{wrong}</p>{/if}
    </div>
    {@render more()}
  {/if}
</li>
