<script lang="ts">
  import { readAmount } from '$lib/core/money/amount-text';
  import {
    sharedByAmounts,
    sharedByLines,
    sharedEqually,
    type ShareOutcome,
  } from '$lib/core/payment/shares';
  import { quantityWords } from '$lib/ui/words/money-words';
  import { shareRefusalWords } from '$lib/ui/words/payment-words';
  import { refusalWords } from '$lib/ui/words/refusal-words';
  import { useStall } from '../../stall.svelte';

  interface Props {
    onclose: () => void;
  }
  const { onclose }: Props = $props();
  const stall = useStall();
  const { slip } = stall;
  const money = $derived(stall.money);
  const cash = $derived(slip.quote?.cash);
  const MOST = 30;
  type Manner = 'equally' | 'by line' | 'by amount';
  /** What comes back pays before anybody does, for nobody's line in particular. */
  const MANNERS: readonly Manner[] =
    slip.current.back === undefined
      ? ['equally', 'by line', 'by amount']
      : ['equally', 'by amount'];
  const whole = $derived(slip.left);
  let manner = $state<Manner>('equally');
  let people = $state(Math.max(2, slip.current.shares?.length ?? 2));
  /** Who had each line, by its key; nobody is everybody. */
  let whose = $state<Record<string, number | undefined>>({});
  let amounts = $state<Record<number, string>>({});
  let wrong = $state('');
  let dialog = $state<HTMLDialogElement>();
  $effect(() => dialog?.showModal());

  const everybody = $derived(Array.from({ length: people }, (_, at) => at));
  const outcome = $derived.by((): ShareOutcome | null => {
    if (cash === undefined) return null;
    if (manner === 'equally') return sharedEqually(whole, people);
    if (manner === 'by line') {
      const had = slip.current.lines.map(({ key }) => {
        const person = whose[key];
        return person !== undefined && person < people ? person : null;
      });
      return sharedByLines(cash, had, people);
    }
    const read = everybody.map((at) => readAmount(amounts[at] ?? '', money.currency));
    return sharedByAmounts(
      whole,
      read.map((each) => (each.ok ? each.amount : 0)),
    );
  });
  const says = $derived(outcome?.ok === false ? shareRefusalWords(outcome.refusal, money) : '');

  function keep(): void {
    if (outcome?.ok !== true) {
      wrong = says;
      return;
    }
    const refusal = slip.say({ shares: outcome.shares });
    wrong = refusal === null ? '' : refusalWords(refusal, money);
    if (refusal === null) onclose();
  }
</script>

<dialog
  bind:this={dialog}
  class="sheet m-auto max-h-[92dvh] w-[min(36rem,96vw)] overflow-y-auto backdrop:bg-black/40"
  aria-labelledby="share-out"
  {onclose}
>
  <div class="grid gap-4">
    <div class="flex items-center justify-between">
      <h2 id="share-out">Share out {money.text(whole)}</h2>
      <button type="button" class="btn btn-quiet" onclick={onclose}>Cancel</button>
    </div>
    <div class="flex flex-wrap gap-2" role="group" aria-label="How">
      {#each MANNERS as each (each)}
        <button
          type="button"
          class={['btn btn-quiet', manner === each && '!border-primary !border-3']}
          aria-pressed={manner === each}
          onclick={() => (manner = each)}>{each}</button
        >
      {/each}
    </div>
    <div class="flex items-center gap-3">
      <span class="font-[560]">Between</span>
      <button
        type="button"
        class="btn btn-quiet min-w-14 text-2xl"
        aria-label="One fewer"
        disabled={people <= 2}
        onclick={() => (people -= 1)}>−</button
      >
      <output class="amount min-w-10 text-center text-3xl" data-testid="people">{people}</output>
      <button
        type="button"
        class="btn btn-quiet min-w-14 text-2xl"
        aria-label="One more"
        disabled={people >= MOST}
        onclick={() => (people += 1)}>+</button
      >
    </div>
    {#if manner === 'by line'}
      <ul class="grid gap-2">
        {#each slip.current.lines as line, at (line.key)}
          <li class="flex flex-wrap items-center justify-between gap-2">
            <span
              >{quantityWords(line.quantity, line.unit)} × {line.name}
              <span class="soft figure">{money.figure(cash?.lines[at]?.total ?? 0)}</span></span
            >
            <select
              class="select min-h-12 w-40"
              aria-label={`Who had ${line.name}`}
              value={String(whose[line.key] ?? '')}
              onchange={(event) => {
                const { value } = event.currentTarget;
                whose[line.key] = value === '' ? undefined : Number(value);
              }}
            >
              <option value="">all of them</option>
              {#each everybody as person (person)}
                <option value={String(person)}>person {person + 1}</option>
              {/each}
            </select>
          </li>
        {/each}
      </ul>
    {:else if manner === 'by amount'}
      <div class="grid grid-cols-2 gap-3 sm:grid-cols-3">
        {#each everybody as person (person)}
          <label class="grid gap-1 font-[560]">
            Person {person + 1}
            <input
              class="input figure w-full"
              inputmode="decimal"
              autocomplete="off"
              bind:value={
                () => amounts[person] ?? '',
                (text) => {
                  amounts[person] = text;
                  wrong = '';
                }
              }
            />
          </label>
        {/each}
      </div>
    {/if}
    {#if outcome?.ok === true}
      <p class="figure" data-testid="shares-will-be">
        {outcome.shares.map(({ amount }) => money.text(amount)).join(' · ')}
      </p>
    {:else}<p class="soft">{says}</p>{/if}
    {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
    <div class="flex flex-wrap gap-2">
      <button type="button" class="btn btn-main px-6" onclick={keep}>Use these shares</button>
      {#if slip.current.shares !== undefined}
        <button
          type="button"
          class="btn btn-quiet"
          onclick={() => {
            slip.say({ shares: undefined });
            onclose();
          }}>One pays for all</button
        >
      {/if}
    </div>
  </div>
</dialog>
