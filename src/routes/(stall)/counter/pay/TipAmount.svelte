<script lang="ts">
  import { readAmount } from '$lib/core/money/amount-text';
  import { refusalWords } from '$lib/ui/words/refusal-words';
  import { useStall } from '../../stall.svelte';

  interface Props {
    /** Minor units; null where the field was left empty. */
    ongive: (tip: number | null) => void;
  }
  const { ongive }: Props = $props();
  const money = $derived(useStall().money);
  let typed = $state('');
  let wrong = $state('');

  function give(): void {
    const read = typed.trim() === '' ? null : readAmount(typed, money.currency);
    wrong = read?.ok === false ? refusalWords(read.refusal, money) : '';
    if (wrong === '') ongive(read?.ok === true ? read.amount : null);
  }
</script>

<form
  class="flex flex-wrap items-center gap-2"
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
  {#if wrong !== ''}<p class="text-error basis-full" role="alert">{wrong}</p>{/if}
</form>
