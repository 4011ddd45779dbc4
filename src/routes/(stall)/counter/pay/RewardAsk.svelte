<!-- The customer has reached a reward: whether to use it now or to keep it. -->
<script lang="ts">
  import Award from '@lucide/svelte/icons/award';
  import { useStall } from '../../stall.svelte';
  import type { Paying } from './paying.svelte';
  import { Promotions } from './promotions.svelte';

  const { paying }: { paying: Paying } = $props();
  const stall = useStall();
  // svelte-ignore state_referenced_locally
  const promotions = new Promotions(paying);
  const money = $derived(stall.money);
  /** What was said to be kept, for this slip. */
  let kept = $state<readonly string[]>([]);
  const way = $derived(stall.ways.find(({ method }) => method === 'reward'));
  const asked = $derived(
    way === undefined
      ? undefined
      : promotions.rewards
          .filter(({ times, reward }) => times > 0 && !kept.includes(reward.id))
          .flatMap(({ reward }) => {
            const pays = promotions.would(way, null, reward.id);
            return pays?.ok === true ? [{ way, reward, amount: pays.amount }] : [];
          })[0],
  );
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
        class="btn btn-main"
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
