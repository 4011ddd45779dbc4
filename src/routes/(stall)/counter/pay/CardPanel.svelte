<script lang="ts">
  import { PracticeReader } from '$lib/device/cards/practice-reader.svelte';
  import type { CardReader } from '$lib/device/cards/card-reader';
  import { carryWords } from '$lib/ui/words/payment-words';
  import RightButton from '../../RightButton.svelte';
  import { useStall } from '../../stall.svelte';
  import type { CardPayment } from './card-payment.svelte';

  interface Props {
    card: CardPayment;
    reader: CardReader | null;
  }
  const { card, reader }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  const practice = $derived(reader instanceof PracticeReader ? reader : null);
  let outcome = $state('approve');
  const OUTCOMES = [
    { value: 'approve', words: 'the bank approves' },
    { value: 'decline:not enough money', words: 'the bank declines: not enough money' },
    { value: 'decline:reported lost', words: 'the bank declines: reported lost' },
    { value: 'partial:500', words: 'only 5.00 is left on the card' },
  ] as const;
</script>

{#if card.step.at !== 'rest'}
  <section
    class="sheet border-primary grid gap-3 border-2"
    aria-label="Card"
    aria-live="polite"
    data-testid="card"
  >
    {#if card.step.at === 'reader'}
      <p class="text-lg">
        <b>{reader?.name ?? 'Reader'}</b> asks for {money.text(card.step.amount)}
      </p>
      {#if practice !== null}
        <div
          class="bg-base-200 grid gap-3 rounded-lg p-3"
          role="group"
          aria-label="Practice reader"
        >
          <label class="flex flex-wrap items-center gap-2">
            <span class="font-[560]">Practice:</span>
            <select class="select min-h-12 min-w-0 flex-1" bind:value={outcome}>
              {#each OUTCOMES as each (each.value)}
                <option value={each.value}>{each.words}</option>
              {/each}
            </select>
          </label>
          <div class="flex flex-wrap gap-2">
            {#each ['tap', 'insert', 'swipe'] as const as entry (entry)}
              <button
                type="button"
                class="btn btn-quiet capitalize"
                onclick={() => practice.hold({ entry, outcome })}>{entry}</button
              >
            {/each}
            <button type="button" class="btn btn-quiet" onclick={() => practice.fail('wrong PIN')}
              >Wrong PIN</button
            >
            <button type="button" class="btn btn-quiet" onclick={() => practice.fail('timed out')}
              >No card comes</button
            >
            <button type="button" class="btn btn-quiet" onclick={() => practice.fail('lost power')}
              >Reader dies</button
            >
          </div>
        </div>
      {/if}
      <button
        type="button"
        class="btn btn-quiet justify-self-start"
        onclick={() => {
          card.stop();
        }}>Stop asking</button
      >
    {:else if card.step.at === 'asking'}
      <p class="text-lg">Asking whether the card is good for {money.text(card.step.amount)} …</p>
    {:else}
      {@const { refusal, carried, amount } = card.step}
      <p class="text-lg"><b>Nobody answers.</b> Nothing is charged twice, whatever you do now.</p>
      <p class="soft">
        {carryWords(refusal, money)}
        {#if carried.count > 0}This device carries {carried.count}
          {carried.count === 1 ? 'card' : 'cards'}, {money.text(carried.amount)} in all.{/if}
      </p>
      <div class="flex flex-wrap gap-2">
        <button type="button" class="btn btn-main px-5" onclick={() => card.ask()}>Ask again</button
        >
        {#if refusal?.code !== 'carry/none' && refusal?.code !== 'carry/needs-voice'}
          <RightButton
            right={refusal === null ? null : 'card.carry'}
            label={`Carry ${money.text(amount)}`}
            look="btn-quiet"
            onGo={(lentBy) => card.carry(lentBy)}
          />
        {/if}
        <button type="button" class="btn btn-quiet" onclick={() => card.leave()}
          >Leave this card</button
        >
      </div>
    {/if}
  </section>
{:else if card.step.says !== ''}
  <p class="sheet border-accent border-l-8" role="alert" data-testid="card-says">
    {card.step.says}
  </p>
{/if}
