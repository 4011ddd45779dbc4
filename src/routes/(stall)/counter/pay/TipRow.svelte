<script lang="ts">
  import { offeredTips } from '$lib/core/payment/tip';
  import { useStall } from '../../stall.svelte';
  import TipAmount from './TipAmount.svelte';

  interface Props {
    /** For the customer’s page: larger. */
    isLarge?: boolean;
  }
  const { isLarge = false }: Props = $props();
  const stall = useStall();
  const { slip } = stall;
  const money = $derived(stall.money);
  const tips = $derived(stall.business.tips);
  const tip = $derived(slip.current.tip);
  const offered = $derived(
    slip.quote === null || tips === null ? [] : offeredTips(slip.quote.cash, tips),
  );
  let isTyping = $state(false);

  const look = (isOn: boolean): string[] => [
    'btn btn-quiet flex-col !gap-0',
    isLarge ? '!min-h-16 text-xl' : '',
    isOn ? '!border-primary !border-3' : '',
  ];
</script>

{#if tips !== null}
  <div class="flex flex-wrap items-center gap-2" role="group" aria-label="Tip">
    <span class={['font-[560]', isLarge && 'text-xl']}>{isLarge ? 'A tip?' : 'Tip'}</span>
    <button
      type="button"
      class={look(tip === undefined)}
      aria-pressed={tip === undefined}
      onclick={() => slip.say({ tip: undefined })}>none</button
    >
    {#each offered as { percent, amount } (percent)}
      <button
        type="button"
        class={look(tip === amount)}
        aria-pressed={tip === amount}
        onclick={() => slip.say({ tip: amount })}
        ><span>{percent} %</span><span class="soft text-sm">{money.text(amount)}</span></button
      >
    {/each}
    {#if isTyping}
      <TipAmount
        ongive={(given) => {
          slip.say({ tip: given ?? undefined });
          isTyping = false;
        }}
      />
    {:else}
      {@const isOther = tip !== undefined && !offered.some(({ amount }) => amount === tip)}
      <button
        type="button"
        class={look(isOther)}
        aria-pressed={isOther}
        onclick={() => (isTyping = true)}>{isOther ? money.text(tip) : 'amount …'}</button
      >
    {/if}
  </div>
{/if}
