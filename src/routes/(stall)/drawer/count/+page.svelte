<script lang="ts">
  import type { Row } from '$lib/core/books/tables';
  import { goto } from '$app/navigation';
  import { countDrawer, readLeaves, type DrawerRefusal } from '$lib/core/drawer/commands';
  import { expectedCash } from '$lib/core/drawer/expected-cash';
  import { worthOf } from '$lib/core/money/worth';
  import { readNumber } from '$lib/core/sale/sale-number';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import DrawerFormula from '$lib/ui/cash/DrawerFormula.svelte';
  import PieceCounter from '$lib/ui/cash/PieceCounter.svelte';
  import { piecesFrom } from '$lib/ui/cash/typed-pieces';
  import Field from '$lib/ui/forms/Field.svelte';
  import { timeWords } from '$lib/ui/words/date-words';
  import { refusalWords } from '$lib/ui/words/refusal-words';
  import { useStall } from '../../stall.svelte';
  import AskToSee from '../AskToSee.svelte';

  const stall = useStall();
  const { db } = stall;
  const money = $derived(stall.money);
  const drawer = $derived(stall.drawer);
  const NOT_READ: { of?: string | undefined; row?: Row<'drawerSums'> | undefined } = {};
  const sums = live(() => {
    const id = stall.drawer?.id;
    return async () => ({
      of: id,
      row: id === undefined ? undefined : await db.books.drawerSums.get(id),
    });
  }, NOT_READ);
  /** What is shown is of this drawer, and not of none before it was known which. */
  const isKnown = $derived(drawer !== undefined && sums.value.of === drawer.id);

  const BLIND = 'counted without seeing what should be in it';
  let typed = $state<Record<number, string>>({});
  let reason = $state('');
  /** What becomes of the cash. */
  let leaves = $state({ stays: '', bag: '', bagNumber: '' });
  /** What was counted first, where it was too far off. */
  let first = $state<number | null>(null);
  let refusal = $state.raw<DrawerRefusal | null>(null);
  let isBusy = $state(false);
  /** The read that was just made; it stays on the screen. */
  let made = $state<string | null>(null);
  const read = $derived(stall.reads.find(({ id }) => id === made));

  const pieces = $derived(piecesFrom(typed));
  const counted = $derived(
    worthOf(
      pieces.filter(({ count }) => Number.isSafeInteger(count) && count >= 0 && count < 100_000),
    ),
  );
  const expected = $derived(drawer === undefined ? 0 : expectedCash(drawer, sums.value.row));
  const difference = $derived(counted - expected);
  const hasCounted = $derived(Object.values(typed).some((text) => text.trim() !== ''));
  /** A blind count: what should be in it is not shown to everybody. */
  let lender = $state<string | null>(null);
  const seesExpected = $derived(stall.seesCash(lender));
  const others = $derived(stall.openDrawers.filter(({ id }) => id !== drawer?.id));

  async function count(): Promise<void> {
    const counting = drawer;
    if (counting === undefined || isBusy) return;
    refusal = null;
    const read = readLeaves(leaves, stall.business.currency);
    if (!read.ok) {
      refusal = read.refusal;
      return;
    }
    isBusy = true;
    const before = first;
    // With all that was sold until it is written: the rows of the last sale may still be on their way.
    const outcome = await stall.daybook
      .decide(
        async () => ({
          reads: await db.books.drawerReads.where('drawer').equals(counting.id).toArray(),
          sums: await db.books.drawerSums.get(counting.id),
        }),
        ({ reads, sums: now }, next) =>
          countDrawer({
            newId,
            drawer: counting,
            sums: now,
            counts: pieces,
            // Whoever counted blind could not know that there was a difference to explain.
            reason: seesExpected || reason.trim() !== '' ? reason : BLIND,
            leaves: read.leaves,
            recountAbove: stall.business.recountAbove,
            first: before,
            number: next.readNumber,
            reads,
            othersAreOpen: others.length > 0,
          }),
        lender === null ? {} : { lentBy: lender },
      )
      .finally(() => (isBusy = false));
    if (!outcome.ok) {
      if (outcome.refusal.code === 'slip/gone') return;
      refusal = outcome.refusal;
      if (outcome.refusal.code === 'drawer/count-again') {
        first = outcome.refusal.counted;
        typed = {};
      }
      return;
    }
    made = outcome.drafts[0]?.id ?? null;
  }
</script>

<section class="page-sides page-wide flex flex-1 flex-col gap-5 overflow-y-auto pt-8 md:pt-10">
  {#if read !== undefined}
    <h1>Final read {readNumber(stall.identity.number, read.number)}</h1>
    <div class="sheet grid gap-2" data-testid="final-read">
      <table class="rows">
        <tbody>
          <tr
            ><td>Should be in the drawer</td><td class="figure">{money.figure(read.expected)}</td
            ></tr
          >
          <tr><td>Counted</td><td class="figure">{money.figure(read.counted)}</td></tr>
          <tr>
            <td>Difference</td>
            <td class={['figure font-[650]', read.difference !== 0 && 'text-error']}
              >{money.off(read.difference)}</td
            >
          </tr>
          {#if read.first !== null}
            <tr><td>Counted first</td><td class="figure">{money.figure(read.first)}</td></tr>
          {/if}
          {#if read.stays > 0}
            <tr
              ><td>Stays for the next float</td><td class="figure">{money.figure(read.stays)}</td
              ></tr
            >
          {/if}
          {#if read.bag !== null}
            <tr
              ><td>In bag {read.bag.number}</td><td class="figure"
                >{money.figure(read.bag.amount)}</td
              ></tr
            >
          {/if}
          <tr
            ><td>To the safe</td><td class="figure"
              >{money.figure(read.counted - read.stays - (read.bag?.amount ?? 0))}</td
            ></tr
          >
          {#if read.reason !== ''}<tr><td>Why</td><td>{read.reason}</td></tr>{/if}
          <tr
            ><td>Counted by</td><td
              >{stall.nameOf(read.by)}, {timeWords(
                read.at,
                stall.business.locale,
                stall.event?.timeZone ?? 'UTC',
              )}</td
            ></tr
          >
        </tbody>
      </table>
      <p class="soft">This read is numbered and stays as it is.</p>
    </div>
    <button type="button" class="btn btn-main self-start px-6" onclick={() => goto('/')}
      >Back to today</button
    >
  {:else if drawer === undefined}
    <h1>Count the drawer</h1>
    <p class="sheet">
      This device uses no open drawer. <a class="plain" href="/">Today</a> shows which there are.
    </p>
  {:else}
    <h1>Count {drawer.name}</h1>
    {#if !stall.slip.isEmpty}
      <p class="sheet border-accent border-l-8">
        A slip is still open at the counter. <a class="plain" href="/counter"
          >Ring it up or empty it</a
        > before the count if it is to be paid.
      </p>
    {/if}
    <p class="soft">How many of each note and coin are in it, float included.</p>
    <form
      class="grid grid-cols-[minmax(0,1fr)] gap-5"
      onsubmit={(submitted) => {
        submitted.preventDefault();
        void count();
      }}
    >
      <div class="sheet">
        <PieceCounter
          {money}
          bind:typed
          wrong={refusal?.code === 'drawer/bad-count' ? refusal.value : null}
        />
      </div>
      {#if seesExpected}
        <div class="sheet">
          <table class="rows">
            <thead
              ><tr
                ><td></td><th scope="col">Should be</th><th scope="col">Is</th><th scope="col"
                  >Difference</th
                ></tr
              ></thead
            >
            <tbody>
              <tr>
                <td>Cash in {drawer.name}</td>
                <td class="figure" data-testid="expected"
                  >{isKnown ? money.figure(expected) : '…'}</td
                >
                <td class="figure" data-testid="counted"
                  >{hasCounted ? money.figure(counted) : ''}</td
                >
                <td
                  class={['figure font-[650]', hasCounted && difference !== 0 && 'text-error']}
                  data-testid="difference"
                >
                  {hasCounted ? (difference === 0 ? 'ties up' : money.off(difference)) : ''}
                </td>
              </tr>
            </tbody>
          </table>
          <details class="mt-2">
            <summary class="soft min-h-8 cursor-pointer text-sm">What should be in it</summary>
            <DrawerFormula {money} {drawer} sums={sums.value.row} />
          </details>
        </div>
      {:else}
        <div class="sheet"><AskToSee onLent={(id) => (lender = id)} /></div>
      {/if}
      <label class="grid gap-1 font-[560]">
        Reason for a difference
        <input
          class={['input w-full', refusal?.code === 'drawer/reason-wanted' && '!border-error']}
          bind:value={reason}
          maxlength="500"
          placeholder="such as: change given wrong at noon"
          aria-invalid={refusal?.code === 'drawer/reason-wanted'}
        />
      </label>
      <fieldset class="sheet grid items-start gap-4 sm:grid-cols-3">
        <legend class="sr-only">What becomes of the cash</legend>
        <Field
          label="Stays for the next float"
          bind:value={leaves.stays}
          inputmode="decimal"
          autocomplete="off"
          isWrong={refusal?.code === 'drawer/amount-wrong' && refusal.field === 'stays'}
        />
        <Field
          label="Goes into a bag for the bank"
          bind:value={leaves.bag}
          inputmode="decimal"
          autocomplete="off"
          isWrong={refusal?.code === 'drawer/amount-wrong' && refusal.field === 'bag'}
        />
        <Field
          label="Number on the bag"
          bind:value={leaves.bagNumber}
          maxlength={40}
          autocomplete="off"
          isWrong={refusal?.code === 'drawer/no-bag-number'}
        />
        <p class="soft text-sm sm:col-span-3">The rest goes to the safe.</p>
      </fieldset>
      {#if first !== null}
        <p class="sheet border-accent border-l-8" data-testid="count-again">
          Second count of {drawer.name}: type all notes and coins again.
        </p>
      {/if}
      {#if refusal !== null}<p class="text-error" role="alert">
          {refusalWords(refusal, money)}
        </p>{/if}
      <div
        class="bg-base-100 border-base-300 sticky bottom-0 flex flex-wrap items-center justify-between gap-3 border-t py-3"
      >
        <p>
          <span class="amount block text-2xl md:text-3xl">{money.text(counted)}</span>
          <span
            class={[
              'text-sm',
              seesExpected && hasCounted && difference !== 0 && 'text-error font-[600]',
            ]}
          >
            {seesExpected && hasCounted
              ? difference === 0
                ? 'ties up'
                : money.off(difference)
              : 'counted so far'}
          </span>
        </p>
        <button class="btn btn-main px-6" disabled={isBusy || !hasCounted}>Close the drawer</button>
      </div>
    </form>
  {/if}
</section>
