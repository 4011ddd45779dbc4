<script lang="ts">
  import { currencyOf } from '../../core/money/currency';
  import { worthOf, type Pieces } from '../../core/money/worth';
  import type { MoneyWords } from '../words/money-words';

  interface Props {
    money: MoneyWords;
    /** How many of each, by value; text as typed, so that nothing typed is lost. */
    typed: Record<number, string>;
    /** The note or coin whose count is wrong, if any. */
    wrong?: number | null;
  }
  let { money, typed = $bindable(), wrong = null }: Props = $props();

  const { notes, coins } = $derived(currencyOf(money.currency));
  const countOf = (value: number): number => Number((typed[value] ?? '').trim() || 0);
  const worth = (value: number): number => {
    const count = countOf(value);
    return Number.isSafeInteger(count) && count >= 0
      ? worthOf([{ value, count } satisfies Pieces])
      : 0;
  };
  const change = (value: number, by: number): void => {
    const now = countOf(value);
    typed[value] = String(Math.max(0, (Number.isSafeInteger(now) ? now : 0) + by));
  };
</script>

{#snippet row(value: number)}
  <li class="flex flex-wrap items-center gap-2 py-1">
    <label for="piece-{value}" class="amount w-14 text-right text-lg"
      >{money.denomination(value)}</label
    >
    <button
      type="button"
      class="btn btn-quiet w-12 !px-0 text-xl"
      aria-label="One {money.denomination(value)} fewer"
      onclick={() => change(value, -1)}>−</button
    >
    <input
      id="piece-{value}"
      class={['input figure w-20 text-center', wrong === value && '!border-error']}
      inputmode="numeric"
      autocomplete="off"
      placeholder="0"
      aria-invalid={wrong === value}
      bind:value={typed[value]}
      onfocus={(event) => event.currentTarget.select()}
    />
    <button
      type="button"
      class="btn btn-quiet w-12 !px-0 text-xl"
      aria-label="One {money.denomination(value)} more"
      onclick={() => change(value, 1)}>+</button
    >
    <span class="figure soft flex-1 text-right"
      >{worth(value) === 0 ? '' : money.figure(worth(value))}</span
    >
  </li>
{/snippet}

<div class="grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-4 md:grid-cols-2">
  <div>
    <h2 class="soft text-base">Notes</h2>
    <ul>
      {#each notes as value (value)}{@render row(value)}{/each}
    </ul>
  </div>
  <div>
    <h2 class="soft text-base">Coins</h2>
    <ul>
      {#each coins as value (value)}{@render row(value)}{/each}
    </ul>
  </div>
</div>
