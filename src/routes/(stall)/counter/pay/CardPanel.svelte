<script lang="ts">
  import type { CarryRefusal } from '$lib/core/payment/carry';
  import { PracticeReader } from '$lib/device/cards/practice-reader.svelte';
  import type { CardReader } from '$lib/device/cards/card-reader';
  import { carriedWords, carryWords } from '$lib/ui/words/payment-words';
  import RightButton from '../../RightButton.svelte';
  import PracticeHand from './PracticeHand.svelte';
  import PracticeTip from './PracticeTip.svelte';
  import SignPad from './SignPad.svelte';
  import { useStall } from '../../stall.svelte';
  import type { CardSteps } from './card-steps.svelte';

  interface Props {
    card: CardSteps;
    reader: CardReader | null;
  }
  const { card, reader }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  /** Whether anybody may take the risk on, with the right to it. */
  const isToCarry = (refusal: CarryRefusal | null): boolean =>
    refusal === null ||
    !['carry/none', 'carry/needs-voice', 'carry/on-file'].includes(refusal.code);
  const practice = $derived(reader instanceof PracticeReader ? reader : null);
</script>

{#snippet stop()}
  <button
    type="button"
    class="btn btn-quiet justify-self-start"
    onclick={() => {
      card.stop();
    }}>Stop asking</button
  >
{/snippet}

{#if card.step.at !== 'rest'}
  <section
    class="sheet border-primary grid gap-3 border-2"
    aria-label="Card"
    aria-live="polite"
    data-testid="card"
  >
    {#if card.step.at === 'tip'}
      <p class="text-lg">
        <b>{reader?.name ?? 'Reader'}</b> asks for a tip on {money.text(card.step.amount)}
      </p>
      {#if practice !== null}<PracticeTip reader={practice} />{/if}
      {@render stop()}
    {:else if card.step.at === 'reader'}
      <p class="text-lg">
        <b>{reader?.name ?? 'Reader'}</b> asks for {money.text(card.step.amount)}
      </p>
      {#if practice !== null}<PracticeHand reader={practice} />{/if}
      {@render stop()}
    {:else if card.step.at === 'sign'}
      <SignPad amount={card.step.amount} {card} />
    {:else if card.step.at === 'asking'}
      <p class="text-lg">Asking whether the card is good for {money.text(card.step.amount)} …</p>
    {:else}
      {@const { refusal, carried, limits, amount, says } = card.step}
      <p class="text-lg">
        <b>{says === '' ? 'Nobody answers.' : says}</b> Nothing is charged twice, whatever you do now.
      </p>
      <p class="soft">
        {carryWords(refusal, money)}
        {#if limits !== null}<span data-testid="carried"
            >{carriedWords(carried, limits, money)}</span
          >{/if}
      </p>
      <div class="flex flex-wrap gap-2">
        <button type="button" class="btn btn-main px-5" onclick={() => card.ask()}>Ask again</button
        >
        {#if isToCarry(refusal)}
          <RightButton
            right={refusal === null ? null : 'card.carry'}
            label={`Carry ${money.text(amount)}`}
            look="btn-quiet"
            onGo={(lentBy) => card.carry(lentBy)}
          />
        {/if}
        <button type="button" class="btn btn-quiet" onclick={() => card.leave()}
          >Cancel this card</button
        >
      </div>
    {/if}
  </section>
{:else if card.step.says !== ''}
  <p class="sheet border-accent border-l-8" role="alert" data-testid="card-says">
    {card.step.says}
  </p>
{/if}
