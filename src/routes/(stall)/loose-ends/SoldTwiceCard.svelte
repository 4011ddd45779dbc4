<script lang="ts">
  import type { Row } from '$lib/core/books/tables';
  import { settleSeen, type SoldTwice } from '$lib/core/loose-end/sold-twice';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { timeWords } from '$lib/ui/words/date-words';
  import { settleRefusalWords } from '$lib/ui/words/loose-end-words';
  import RightButton from '../RightButton.svelte';
  import { useStall } from '../stall.svelte';

  interface Props {
    twice: SoldTwice;
    settlements: readonly Row<'settlements'>[];
  }
  const { twice, settlements }: Props = $props();
  const stall = useStall();
  const { locale, timeZone } = $derived(stall.business);
  let reason = $state('');
  let wrong = $state('');

  async function settle(lentBy?: string): Promise<void> {
    const outcome = await stall.daybook.append(
      () => settleSeen(newId, twice.looseEnd, reason, settlements),
      lentBy === undefined ? {} : { lentBy },
    );
    wrong =
      outcome.ok || outcome.refusal.code === 'slip/gone' ? '' : settleRefusalWords(outcome.refusal);
  }
</script>

<article class="sheet border-accent grid gap-3 border-l-8" aria-label="A slip rung up twice">
  <div>
    <h2>The same slip was rung up {twice.sales.length} times</h2>
    <p>
      Two devices had taken it up out of touch. Both sales stand; look whether it was paid twice.
    </p>
    <ul>
      {#each twice.sales as sale (sale.id)}
        <li>
          <a class="plain" href="/sales/{sale.id}">{sale.number}, {stall.money.text(sale.total)}</a>
          <span class="soft">{timeWords(sale.at, locale, timeZone)}, {stall.nameOf(sale.by)}</span>
        </li>
      {/each}
    </ul>
  </div>
  <Field label="What came of it" bind:value={reason} maxlength={500} isWrong={wrong !== ''} />
  {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
  <RightButton right="set-up" label="Settle it" look="btn-quiet" onGo={settle} />
</article>
