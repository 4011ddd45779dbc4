<script lang="ts">
  import { readAmount } from '$lib/core/money/amount-text';
  import { offeredTips } from '$lib/core/payment/tip';
  import { refusalWords } from '$lib/ui/words/refusal-words';
  import { useStall } from '../../stall.svelte';

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
  let typed = $state('');
  let wrong = $state('');

  function give(): void {
    const read = typed.trim() === '' ? null : readAmount(typed, money.currency);
    wrong = read?.ok === false ? refusalWords(read.refusal, money) : '';
    if (wrong !== '') return;
    slip.say({ tip: read?.ok === true ? read.amount : undefined });
    isTyping = false;
  }
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
      <form
        class="flex items-center gap-2"
        onsubmit={(event) => {
          event.preventDefault();
          give();
        }}
      >
        <input
          class={['input figure w-28', wrong !== '' && '!border-error']}
          aria-label="Tip, an amount"
          aria-invalid={wrong !== ''}
          inputmode="decimal"
          autocomplete="off"
          bind:value={typed}
        />
        <button class="btn btn-quiet">Give it</button>
      </form>
    {:else}
      {@const isOther = tip !== undefined && !offered.some(({ amount }) => amount === tip)}
      <button
        type="button"
        class={look(isOther)}
        aria-pressed={isOther}
        onclick={() => (isTyping = true)}>{isOther ? money.text(tip) : 'amount …'}</button
      >
    {/if}
    {#if wrong !== ''}<p class="text-error basis-full" role="alert">{wrong}</p>{/if}
  </div>
{/if}
