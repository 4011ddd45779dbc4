<!-- The customer has reached a reward: whether to use it now or to keep it. -->
<script lang="ts">
  import Award from '@lucide/svelte/icons/award';
  import { useStall } from '../../stall.svelte';
  import type { Paying } from './paying.svelte';
  import type { Promotions } from './promotions.svelte';

  const { paying, promotions }: { paying: Paying; promotions: Promotions } = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  /** What was said to be kept, for this slip. */
  let kept = $state<readonly string[]>([]);
  const asked = $derived(promotions.toAsk().find(({ reward }) => !kept.includes(reward.id)));
</script>

{#if asked !== undefined}
  <section
    class="sheet border-accent flex flex-wrap items-center justify-between gap-3 border-l-8"
    aria-label="A reward"
    data-testid="reward-ask"
  >
    <p class="flex items-center gap-3">
      <Award aria-hidden="true" class="size-6 shrink-0" />
      <span
        ><b>{stall.slip.current.customer?.name ?? ''}</b> has reached
        <b>{asked.reward.name}</b>.</span
      >
    </p>
    <div class="flex flex-wrap gap-2">
      <button
        type="button"
        class="btn bg-card border-primary border-2"
        disabled={paying.isBusy}
        onclick={() => paying.take(asked.way, null, { reference: asked.reward.id })}
        >Use it now: {money.text(asked.amount)} off</button
      >
      <button
        type="button"
        class="btn btn-quiet"
        onclick={() => (kept = [...kept, asked.reward.id])}>Keep it</button
      >
    </div>
  </section>
{/if}
