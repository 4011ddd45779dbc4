<script lang="ts">
  /** Who looks after a loose end, and asking somebody to. It stays loose. */
  import { handLooseEnd } from '$lib/core/loose-end/hand-loose-end';
  import type { Hand } from '$lib/core/settle/event-loose-ends';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import RightButton from '../RightButton.svelte';
  import { useStall } from '../stall.svelte';
  import { useHands } from './hands.svelte';

  interface Props {
    looseEnd: string;
    /** Where a page knows it otherwise than from the list of all of them. */
    hand?: Pick<Hand, 'to' | 'note'> | undefined;
  }
  const { looseEnd, hand: given }: Props = $props();
  const stall = useStall();
  const hands = useHands();
  let isOpen = $state(false);
  let to = $state('');
  let note = $state('');
  /** What was said here, until the server has it. */
  let said = $state.raw<Pick<Hand, 'to' | 'note'> | undefined>(undefined);
  const hand = $derived(said ?? given ?? hands?.of(looseEnd));

  async function handOver(lentBy?: string): Promise<void> {
    const [whom, words] = [to === '' ? null : to, note];
    await stall.daybook.append(
      () => ({ ok: true as const, drafts: handLooseEnd(newId, looseEnd, whom, words) }),
      lentBy === undefined ? {} : { lentBy },
    );
    await stall.daybook.settle();
    said = { to: whom, note: words.trim() };
    isOpen = false;
  }
</script>

{#if hand?.to != null}
  <p class="order-first w-full text-sm font-[560]" data-testid="hand">
    {stall.nameOf(hand.to)} looks after it{hand.note === '' ? '.' : `: ${hand.note}`}
  </p>
{/if}
{#if isOpen}
  <div class="grid w-full gap-2">
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
      <button type="button" class="btn btn-quiet" onclick={() => (isOpen = false)}>Not now</button>
    </div>
  </div>
{:else}
  <button
    type="button"
    class="btn btn-quiet"
    onclick={() => {
      [to, note] = [hand?.to ?? '', hand?.note ?? ''];
      isOpen = true;
    }}>Hand it to somebody</button
  >
{/if}
