<script lang="ts">
  /** A loose end of the event: its story, where it is put right, and accepting it with a reason. */
  import type { Snippet } from 'svelte';
  import { handLooseEnd } from '$lib/core/loose-end/hand-loose-end';
  import { settleSeen } from '$lib/core/loose-end/sold-twice';
  import type { EventEnd } from '$lib/core/settle/event-ends';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { endWords, type SettleNames } from '$lib/ui/words/settle-words';
  import { settleRefusalWords } from '$lib/ui/words/loose-end-words';
  import RightButton from '../RightButton.svelte';
  import { useStall } from '../stall.svelte';

  interface Props {
    end: EventEnd;
    names: SettleNames;
    /** Who was asked to look after it. */
    hand: { readonly to: string | null; readonly note: string } | undefined;
    /** What can be done about it here. */
    children?: Snippet;
  }
  const { end, names, hand, children }: Props = $props();
  const stall = useStall();
  const { books } = stall.db;
  const words = $derived(endWords(end, names));
  let doing = $state<'' | 'accept' | 'hand'>('');
  let to = $state('');
  let note = $state('');
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

  async function handOver(lentBy?: string): Promise<void> {
    const [looseEnd, whom, said] = [end.looseEnd, to === '' ? null : to, note];
    await stall.daybook.append(
      () => ({ ok: true as const, drafts: handLooseEnd(newId, looseEnd, whom, said) }),
      lentBy === undefined ? {} : { lentBy },
    );
    await stall.daybook.settle();
    doing = '';
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
  {#if hand?.to != null}
    <p class="text-sm font-[560]" data-testid="hand">
      {names.person(hand.to)} looks after it{hand.note === '' ? '.' : `: ${hand.note}`}
    </p>
  {/if}
  {@render children?.()}
  {#if doing === 'hand'}
    <label class="grid gap-1 font-[560]">
      Who looks after it
      <select class="select min-h-12 w-full" bind:value={to}>
        <option value="">nobody</option>
        {#each stall.staff as { id, name } (id)}<option value={id}>{name}</option>{/each}
      </select>
    </label>
    <Field label="What is asked of them" bind:value={note} maxlength={500} />
    <div class="flex flex-wrap gap-2">
      <RightButton right="event.settle" label="Hand it over" look="btn-quiet" onGo={handOver} />
      <button type="button" class="btn btn-quiet" onclick={() => (doing = '')}>Not now</button>
    </div>
  {:else if doing === 'accept'}
    <Field label="Why it is left as it is" bind:value={reason} maxlength={500} says={wrong} />
    <div class="flex flex-wrap gap-2">
      <RightButton right="set-up" label="Accept it" look="btn-quiet" onGo={accept} />
      <button type="button" class="btn btn-quiet" onclick={() => (doing = '')}>Leave it open</button
      >
    </div>
  {:else}
    <div class="flex flex-wrap gap-2">
      {#if words.href !== null}<a class="btn btn-quiet" href={words.href}>{words.link}</a>{/if}
      <button type="button" class="btn btn-quiet" onclick={() => (doing = 'accept')}
        >Accept with a reason</button
      >
      <button
        type="button"
        class="btn btn-quiet"
        onclick={() => {
          to = hand?.to ?? '';
          note = hand?.note ?? '';
          doing = 'hand';
        }}>Hand it to somebody</button
      >
    </div>
  {/if}
</article>
