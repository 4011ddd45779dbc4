<script lang="ts">
  import type { PracticeReader } from '$lib/device/cards/practice-reader.svelte';
  import { useStall } from '../../stall.svelte';
  import TipAmount from './TipAmount.svelte';

  interface Props {
    reader: PracticeReader;
  }
  const { reader }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
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
    <TipAmount ongive={(tip) => reader.tip(tip ?? 0)} />
    <button type="button" class="btn btn-quiet" onclick={() => reader.tip(null)}>Stop</button>
  </div>
</div>
