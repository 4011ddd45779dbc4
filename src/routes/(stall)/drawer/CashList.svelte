<script lang="ts">
  /** What was moved in between, newest first, and the bags that are on their way. */
  import type { Row } from '$lib/core/books/tables';
  import { inBag, SAFE } from '$lib/core/drawer/cash-places';
  import { bagsOf, moveCash, type Bag } from '$lib/core/drawer/move-cash';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import { cashFault, cashMoveWords } from '$lib/ui/words/cash-words';
  import { timeWords } from '$lib/ui/words/date-words';
  import RightButton from '../RightButton.svelte';
  import { useStall } from '../stall.svelte';

  interface Props {
    event: Row<'events'>;
  }
  const { event }: Props = $props();
  const stall = useStall();
  const { books } = stall.db;
  const rows = live(
    () => {
      const { id } = event;
      return async () => {
        const [moves, reads, drawers] = await Promise.all([
          books.cashMoves.where('event').equals(id).toArray(),
          books.drawerReads.where('event').equals(id).toArray(),
          books.drawers.where('event').equals(id).toArray(),
        ]);
        return { moves, reads, drawers };
      };
    },
    { moves: [], reads: [], drawers: [] },
  );
  const moves = $derived(rows.value.moves.toSorted((a, b) => (a.at < b.at ? 1 : -1)));
  const bags = $derived(bagsOf(rows.value.reads, rows.value.moves));
  const drawerName = (id: string): string =>
    rows.value.drawers.find((drawer) => drawer.id === id)?.name ?? 'a drawer';
  let shown = $state<string | null>(null);
  let wrong = $state('');

  async function open(bag: Bag, lentBy?: string): Promise<void> {
    const { id } = event;
    const typed = {
      ...{ from: inBag(bag.id), to: SAFE, bag: '', what: `bag ${bag.number}` },
      amount: stall.money.plain(bag.amount),
    };
    // As it is when it is written: another window may have opened it.
    const outcome = await stall.daybook.decide(
      async () =>
        bagsOf(
          await books.drawerReads.where('event').equals(id).toArray(),
          await books.cashMoves.where('event').equals(id).toArray(),
        ),
      (now) =>
        moveCash({
          ...{ newId, event: id, currency: stall.business.currency, typed },
          ...{ photo: null, counted: [], bags: now },
        }),
      lentBy === undefined ? {} : { lentBy },
    );
    wrong =
      outcome.ok || outcome.refusal.code === 'slip/gone' ? '' : cashFault(outcome.refusal).says;
  }
</script>

{#if bags.length > 0}
  <section class="sheet grid gap-2" aria-labelledby="bags">
    <h2 id="bags">Bags for the bank</h2>
    <ul class="grid" data-testid="bags">
      {#each bags as bag (bag.id)}
        <li
          class="border-base-300 flex flex-wrap items-center justify-between gap-3 border-b py-2 last:border-0"
        >
          <span
            ><b>{bag.number}</b>
            <span class="soft"
              >{timeWords(bag.at, stall.business.locale, event.timeZone)}, {stall.nameOf(
                bag.by,
              )}</span
            ></span
          >
          <span class="flex items-center gap-3">
            <b class="figure">{stall.money.text(bag.amount)}</b>
            <RightButton
              right="cash.out"
              label="Open it again"
              look="btn-quiet"
              onGo={(lentBy) => open(bag, lentBy)}
            />
          </span>
        </li>
      {/each}
    </ul>
    {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
  </section>
{/if}
<section class="sheet grid gap-2" aria-labelledby="moves">
  <h2 id="moves">Noted so far</h2>
  <ul class="grid" data-testid="cash-moves">
    {#each moves as move (move.id)}
      <li class="border-base-300 grid gap-1 border-b py-2 last:border-0">
        <span class="flex flex-wrap items-baseline justify-between gap-x-3">
          <span>{cashMoveWords(move, drawerName)}</span>
          <b class="figure">{stall.money.text(move.amount)}</b>
        </span>
        <span class="soft flex flex-wrap items-center gap-3 text-sm">
          {timeWords(move.at, stall.business.locale, event.timeZone)}, {stall.nameOf(move.by)}
          {#if move.photo !== null}
            <button
              type="button"
              class="plain min-h-8"
              onclick={() => (shown = shown === move.id ? null : move.id)}
              >{shown === move.id ? 'Hide the bill' : 'The bill'}</button
            >
          {/if}
        </span>
        {#if shown === move.id && move.photo !== null}
          <img src={move.photo.data} alt="The bill for {move.what}" class="max-h-96 rounded-lg" />
        {/if}
      </li>
    {:else}
      <li class="soft">
        Nothing yet. A bill paid from the drawer is noted here, with its picture.
      </li>
    {/each}
  </ul>
</section>
