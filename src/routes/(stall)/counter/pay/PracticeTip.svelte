<script lang="ts">
  import { readAmount } from '$lib/core/money/amount-text';
  import type { PracticeReader } from '$lib/device/cards/practice-reader.svelte';
  import { refusalWords } from '$lib/ui/words/refusal-words';
  import { useStall } from '../../stall.svelte';

  interface Props {
    reader: PracticeReader;
  }
  const { reader }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  let typed = $state('');
  let wrong = $state('');

  function give(): void {
    const read = readAmount(typed, money.currency);
    wrong = read.ok ? '' : refusalWords(read.refusal, money);
    if (read.ok) reader.tip(read.amount);
  }
</script>

<div class="bg-base-200 grid gap-3 rounded-lg p-3" role="group" aria-label="Practice reader">
  <p class="font-[560]">Practice: the customer touches</p>
  <div class="flex flex-wrap gap-2">
    <button type="button" class="btn btn-quiet" onclick={() => reader.tip(0)}>No tip</button>
    {#each reader.tips ?? [] as { percent, amount } (percent)}
      <button type="button" class="btn btn-quiet" onclick={() => reader.tip(amount)}
        >{percent} %, {money.text(amount)}</button
      >
    {/each}
    <form
      class="flex items-center gap-2"
      onsubmit={(event) => {
        event.preventDefault();
        give();
      }}
    >
      <input
        class={['input figure w-28', wrong !== '' && '!border-error']}
        aria-label="Another tip"
        aria-invalid={wrong !== ''}
        inputmode="decimal"
        autocomplete="off"
        bind:value={typed}
      />
      <button class="btn btn-quiet">Give it</button>
    </form>
    <button type="button" class="btn btn-quiet" onclick={() => reader.tip(null)}>Stop</button>
  </div>
  {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
</div>
