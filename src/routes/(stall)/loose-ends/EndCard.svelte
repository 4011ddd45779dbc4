<script lang="ts">
  /** A loose end of the event: its story, where it is put right, and accepting it with a reason. */
  import type { Snippet } from 'svelte';
  import { settleSeen } from '$lib/core/loose-end/sold-twice';
  import type { EventEnd } from '$lib/core/settle/event-ends';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { endWords, type SettleNames } from '$lib/ui/words/settle-words';
  import { settleRefusalWords } from '$lib/ui/words/loose-end-words';
  import RightButton from '../RightButton.svelte';
  import { useStall } from '../stall.svelte';
  import HandOver from './HandOver.svelte';

  interface Props {
    end: EventEnd;
    names: SettleNames;
    /** Who was asked to look after it. */
    hand?: { readonly to: string | null; readonly note: string } | undefined;
    /** What can be done about it here. */
    children?: Snippet;
  }
  const { end, names, hand, children }: Props = $props();
  const stall = useStall();
  const { books } = stall.db;
  const words = $derived(endWords(end, names));
  let isAccepting = $state(false);
  let reason = $state('');
  let wrong = $state('');

  async function accept(lentBy?: string): Promise<void> {
    const [said, { looseEnd }] = [reason, end];
    const outcome = await stall.daybook.decide(
      () => books.settlements.where('looseEnd').equals(looseEnd).toArray(),
      (settlements) => settleSeen(newId, looseEnd, said, settlements),
      lentBy === undefined ? {} : { lentBy },
    );
    wrong =
      outcome.ok || outcome.refusal.code === 'slip/gone' ? '' : settleRefusalWords(outcome.refusal);
    await stall.daybook.settle();
  }
</script>

<article
  class="sheet border-accent grid gap-2 border-l-8"
  aria-label={words.title}
  data-testid="end"
  data-code={end.code}
>
  <h3 class="font-[650]">{words.title}</h3>
  <p class="soft text-sm">{words.story}</p>
  {@render children?.()}
  {#if isAccepting}
    <Field label="Why it is left as it is" bind:value={reason} maxlength={500} says={wrong} />
    <div class="flex flex-wrap gap-2">
      <RightButton right="set-up" label="Accept it" look="btn-quiet" onGo={accept} />
      <button type="button" class="btn btn-quiet" onclick={() => (isAccepting = false)}
        >Leave it open</button
      >
    </div>
  {:else}
    <div class="flex flex-wrap gap-2">
      {#if words.href !== null}<a class="btn btn-quiet" href={words.href}>{words.link}</a>{/if}
      <button type="button" class="btn btn-quiet" onclick={() => (isAccepting = true)}
        >Accept with a reason</button
      >
      <HandOver looseEnd={end.looseEnd} {hand} />
    </div>
  {/if}
</article>
