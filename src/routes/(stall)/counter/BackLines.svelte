<script lang="ts">
  /** What comes back of earlier sales on the slip: lines below nothing, which pay for what is on it. */
  import Undo2 from '@lucide/svelte/icons/undo-2';
  import X from '@lucide/svelte/icons/x';
  import { quantityWords } from '$lib/ui/words/money-words';
  import { useStall } from '../stall.svelte';

  interface Props {
    /** Whether they can be left out here. */
    canLeaveOut?: boolean;
  }
  const { canLeaveOut = false }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
</script>

{#each stall.slip.current.back ?? [] as back (back.sale)}
  <div
    class="border-base-300 grid grid-cols-[auto_1fr_auto_auto] items-center gap-2 border-b border-dashed py-1"
    data-testid="comes-back"
  >
    <Undo2 aria-hidden="true" class="text-accent size-5" />
    <p class="min-w-0 leading-tight">
      {back.lines
        .map(({ quantity, unit, name }) => `${quantityWords(quantity, unit)} × ${name}`)
        .join(', ')}
      <span class="soft block text-sm"
        >comes back, of <a class="plain" href="/sales/{back.sale}">{back.saleNumber}</a></span
      >
    </p>
    <span class="figure">{money.figure(0 - back.comesTo)}</span>
    {#if canLeaveOut && !stall.slip.isPartPaid}
      <button
        type="button"
        class="grid size-12 place-items-center"
        aria-label="{back.saleNumber} does not come back"
        onclick={() => stall.slip.leaveOut(back.sale)}
        ><X aria-hidden="true" class="size-5" /></button
      >
    {/if}
  </div>
{/each}
