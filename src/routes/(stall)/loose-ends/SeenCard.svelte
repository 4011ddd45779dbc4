<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { Row } from '$lib/core/books/tables';
  import { settleSeen } from '$lib/core/loose-end/sold-twice';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { settleRefusalWords } from '$lib/ui/words/loose-end-words';
  import RightButton from '../RightButton.svelte';
  import { useStall } from '../stall.svelte';
  import HandOver from './HandOver.svelte';

  interface Props {
    /** What names it: a sort, a colon, and what it is about. */
    looseEnd: string;
    label: string;
    title: string;
    settlements: readonly Row<'settlements'>[];
    /** Its story. */
    children: Snippet;
  }
  const { looseEnd, label, title, settlements, children }: Props = $props();
  const stall = useStall();
  let reason = $state('');
  let wrong = $state('');

  async function settle(lentBy?: string): Promise<void> {
    const outcome = await stall.daybook.append(
      () => settleSeen(newId, looseEnd, reason, settlements),
      lentBy === undefined ? {} : { lentBy },
    );
    wrong =
      outcome.ok || outcome.refusal.code === 'slip/gone' ? '' : settleRefusalWords(outcome.refusal);
  }
</script>

<article class="sheet border-accent grid gap-3 border-l-8" aria-label={label}>
  <div>
    <h2>{title}</h2>
    {@render children()}
  </div>
  <Field label="What came of it" bind:value={reason} maxlength={500} isWrong={wrong !== ''} />
  {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
  <div class="flex flex-wrap gap-2">
    <RightButton right="set-up" label="Settle" look="btn-quiet" onGo={settle} />
    <HandOver {looseEnd} />
  </div>
</article>
