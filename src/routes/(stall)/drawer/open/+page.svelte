<script lang="ts">
  import { goto } from '$app/navigation';
  import { draft } from '$lib/core/daybook/kinds';
  import { nextDrawerName, openDrawer, type DrawerRefusal } from '$lib/core/drawer/commands';
  import { stageOf } from '$lib/core/event/stage';
  import { worthOf } from '$lib/core/money/worth';
  import { openDrawersOf } from '$lib/device/event-rows';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import PieceCounter from '$lib/ui/cash/PieceCounter.svelte';
  import { piecesFrom } from '$lib/ui/cash/typed-pieces';
  import { refusalWords } from '$lib/ui/words/refusal-words';
  import { useStall } from '../../stall.svelte';
  import { stillHere } from '../../still-here';

  const stall = useStall();
  const money = $derived(stall.money);
  const event = $derived(stall.event);
  let typed = $state<Record<number, string>>({});
  // As others are opened elsewhere it follows, until somebody types a name.
  let name = $derived(nextDrawerName(stall.drawers));
  let refusal = $state.raw<DrawerRefusal | null>(null);
  let isBusy = $state(false);
  const lastRead = live(
    () => async () => (await stall.db.books.drawerReads.toCollection().sortBy('at')).at(-1),
    undefined,
  );
  const stayed = $derived(
    (lastRead.value?.stays ?? 0) > 0 ? (lastRead.value?.stays ?? null) : null,
  );
  const pieces = $derived(piecesFrom(typed));
  const total = $derived(
    worthOf(
      pieces.filter(({ count }) => Number.isSafeInteger(count) && count >= 0 && count < 100_000),
    ),
  );

  async function open(): Promise<void> {
    if (event === undefined || isBusy) return;
    isBusy = true;
    refusal = null;
    const isHere = stillHere();
    const id = newId();
    const outcome = await stall.daybook
      .decide(
        async () => await openDrawersOf(stall.db, event.id),
        (drawers) => {
          const opened = openDrawer({ id, event: event.id, name, counts: pieces, open: drawers });
          const isTrading = stageOf(event) !== 'planned' && stageOf(event) !== 'packed';
          if (!opened.ok || isTrading) return opened;
          const trading = draft('event.stage', newId(), event.id, {
            event: event.id,
            stage: 'trading',
          });
          return { ok: true as const, drafts: [...opened.drafts, trading] };
        },
      )
      .finally(() => (isBusy = false));
    if (!outcome.ok) {
      if (outcome.refusal.code !== 'slip/gone') refusal = outcome.refusal;
      return;
    }
    await stall.useDrawer(event.id, id);
    if (isHere()) await goto('/counter');
  }
</script>

<section class="page-sides page-wide flex flex-1 flex-col gap-5 overflow-y-auto pt-8 md:pt-10">
  <h1>Open a drawer</h1>
  {#if event === undefined}
    <p class="sheet">No event is on today; a drawer belongs to an event.</p>
  {:else}
    <p class="soft">
      Count the float into the tin: how many of each note and coin.
      {#if stayed !== null}{money.text(stayed)} stayed for it when a drawer was counted last.{/if}
    </p>
    <form
      class="grid grid-cols-[minmax(0,1fr)] gap-5"
      onsubmit={(submitted) => {
        submitted.preventDefault();
        void open();
      }}
    >
      <label class="flex flex-wrap items-center gap-3 font-[560]">
        Name
        <input
          class="input w-56 max-w-full"
          bind:value={name}
          maxlength="80"
          autocomplete="off"
          aria-invalid={refusal?.code === 'drawer/no-name'}
        />
      </label>
      <div class="sheet">
        <PieceCounter
          {money}
          bind:typed
          wrong={refusal?.code === 'drawer/bad-count' ? refusal.value : null}
        />
      </div>
      {#if refusal !== null}<p class="text-error" role="alert">
          {refusalWords(refusal, money)}
        </p>{/if}
      <div
        class="bg-base-100 border-base-300 sticky bottom-0 flex flex-wrap items-center justify-between gap-3 border-t py-3"
      >
        <p>
          Float <span
            class="amount block text-2xl md:ml-2 md:inline md:text-3xl"
            data-testid="float">{money.text(total)}</span
          >
        </p>
        <button class="btn btn-main px-6" disabled={isBusy}>Open with {money.text(total)}</button>
      </div>
    </form>
  {/if}
</section>
