<script lang="ts">
  import { paidWith } from '$lib/core/payment/part-sums';
  import { EXCHANGE } from '$lib/core/payment/methods';
  import { partLine } from '$lib/ui/words/payment-words';
  import { useStall } from '../../stall.svelte';
  import type { Paying } from './paying.svelte';

  interface Props {
    paying: Paying;
  }
  const { paying }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  const paid = $derived(stall.slip.current.paid ?? []);
  let asked = $state<string | null>(null);
</script>

{#if paid.length > 0}
  <section class="grid gap-2" aria-label="Taken so far" data-testid="stubs">
    <h3 class="soft text-base font-[560]">Taken so far</h3>
    {#each paid as part (part.id)}
      <div class="paper-shade">
        <div class="paper torn-below grid gap-1 px-4 pt-3 pb-5">
          <p class="flex items-baseline justify-between gap-3">
            <span
              ><b>{part.wayName}</b>
              {#if part.card}<span class="code">{part.card.last4}</span>{/if}
              {#if part.reference !== ''}<span class="code">{part.reference}</span>{/if}</span
            >
            <span class="figure font-[650]">{money.figure(paidWith(part))}</span>
          </p>
          {#if asked === part.id}
            <div class="flex flex-wrap gap-2">
              <button
                type="button"
                class="btn btn-quiet !border-error text-error"
                disabled={paying.isBusy}
                onclick={async () => {
                  asked = null;
                  await paying.giveBack([part.id], 'given back before the slip was rung up');
                }}>Give back {money.text(paidWith(part))}</button
              >
              <button type="button" class="btn btn-quiet" onclick={() => (asked = null)}
                >Keep it</button
              >
            </div>
          {:else if part.way !== EXCHANGE}
            <div class="flex items-center justify-between gap-3">
              <p class="soft text-sm">{partLine(part, money)}</p>
              <button
                type="button"
                class="soft min-h-12 shrink-0 underline"
                onclick={() => (asked = part.id)}>Give it back …</button
              >
            </div>
          {/if}
        </div>
      </div>
    {/each}
  </section>
{/if}
