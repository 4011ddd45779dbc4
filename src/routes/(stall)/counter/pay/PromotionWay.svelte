<!-- Paying with points of the customer, or with a reward that they have reached. -->
<script lang="ts">
  import { readAmount } from '$lib/core/money/amount-text';
  import { spendablePoints } from '$lib/core/points/points-facts';
  import { worthOf } from '$lib/core/points/points-rule';
  import type { WayToPay } from '$lib/core/payment/ways';
  import { pointsWords, rewardHeldWords } from '$lib/ui/words/points-words';
  import { refusalWords } from '$lib/ui/words/refusal-words';
  import { useStall } from '../../stall.svelte';
  import CustomerPicker from '../CustomerPicker.svelte';
  import OfWhatIsLeft from './OfWhatIsLeft.svelte';
  import type { Paying } from './paying.svelte';
  import type { Promotions } from './promotions.svelte';

  interface Props {
    way: WayToPay;
    paying: Paying;
    promotions: Promotions;
    ontaken: () => void;
  }
  const { way, paying, promotions, ontaken }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  const isPoints = $derived(way.method === 'points');
  const hasCustomer = $derived(stall.slip.current.customer !== undefined);

  let typed = $state('');
  const read = $derived(typed.trim() === '' ? null : readAmount(typed, money.currency));
  const would = $derived(promotions.would(way, read?.ok === true ? read.amount : null));
  const saying = $derived.by(() => {
    const { facts } = promotions;
    if (!hasCustomer || facts === undefined) return '';
    if (read?.ok === false) return refusalWords(read.refusal, money);
    if (would?.ok === false) return refusalWords(would.refusal, money);
    const there = spendablePoints(facts, promotions.day);
    return `They have ${pointsWords(there, money)}, which pay ${money.text(worthOf(there, facts.rule))}.`;
  });

  async function take(amount: number | null, reference: string): Promise<void> {
    const done = await paying.take(way, amount, { reference });
    if (done?.ok !== true) return;
    typed = '';
    ontaken();
  }
</script>

<div class="grid gap-3 px-4 pb-4">
  {#if !hasCustomer}<CustomerPicker />{/if}
  {#if isPoints}
    <form
      class="flex flex-wrap items-end gap-3"
      onsubmit={(event) => {
        event.preventDefault();
        if (read?.ok === false) paying.wrong = refusalWords(read.refusal, money);
        else void take(read === null ? null : read.amount, '');
      }}
    >
      <OfWhatIsLeft
        bind:typed
        {paying}
        placeholder={would?.ok === true ? money.plain(would.amount) : ''}
      />
      <button class="btn btn-main px-5" disabled={paying.isBusy || would?.ok !== true}>
        {would?.ok === true
          ? `Take ${pointsWords(would.promotion.taken, money)} for ${money.text(would.amount)}`
          : 'Take it'}
        <kbd class="key max-md:hidden">Enter</kbd>
      </button>
    </form>
    <output
      class={would?.ok === false && hasCustomer ? 'text-error' : 'soft'}
      data-testid="points-say">{saying}</output
    >
  {:else if hasCustomer}
    <ul class="grid gap-2" data-testid="rewards">
      {#each promotions.rewards as held (held.reward.id)}
        {@const pays = promotions.would(way, null, held.reward.id)}
        <li class="flex flex-wrap items-center justify-between gap-2">
          <span
            ><b>{held.reward.name}</b>
            <span class="soft">{rewardHeldWords(held, money)}</span></span
          >
          {#if held.times > 0}
            {#if pays?.ok === true}
              <button
                type="button"
                class="btn btn-main"
                disabled={paying.isBusy}
                onclick={() => take(null, held.reward.id)}>Use it: {money.text(pays.amount)}</button
              >
            {:else if pays?.ok === false}
              <span class="text-error">{refusalWords(pays.refusal, money)}</span>
            {/if}
          {/if}
        </li>
      {:else}
        <li class="soft">There are no rewards to reach at present.</li>
      {/each}
    </ul>
  {/if}
  {#if paying.wrong !== null}<p class="text-error" role="alert">{paying.wrong}</p>{/if}
</div>
