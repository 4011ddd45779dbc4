<script lang="ts">
  /** Cash in between: what happens, how much, what for. */
  import { SPENT_ON } from '$lib/core/daybook/kinds/cash-moved';
  import {
    drawerAt,
    inDrawer,
    NEW_BAG,
    OWNER,
    SAFE,
    spentOn,
    takesCashOut,
    type CashAct,
    type CashPlace,
    type FromTo,
    type SpentOn,
  } from '$lib/core/drawer/cash-places';
  import { bagsOf, moveCash } from '$lib/core/drawer/move-cash';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { scaledDown } from '$lib/ui/files/scaled-down';
  import { cashActWords, cashFault, spentWords } from '$lib/ui/words/cash-words';
  import { StallForm as Form } from '../forms/stall-form.svelte';
  import StallForm from '../forms/StallForm.svelte';
  import { useStall } from '../stall.svelte';

  interface Props {
    onDone: () => void;
  }
  const { onDone }: Props = $props();
  const stall = useStall();
  const { books } = stall.db;
  const drawers = $derived(stall.openDrawers);
  const event = stall.event?.id ?? null;
  const ACTS: readonly CashAct[] = [
    'paid-out',
    'paid-in',
    'to-safe',
    'float',
    'changed',
    'moved',
    'bagged',
    'to-owner',
  ];
  const NEEDS_DRAWER: ReadonlySet<CashAct> = new Set(['to-safe', 'float', 'changed', 'moved']);

  interface Typed {
    does: CashAct;
    /** The drawer or the safe that it is about. */
    place: CashPlace;
    /** The other drawer, where it goes to one. */
    other: CashPlace;
    on: SpentOn;
    amount: string;
    what: string;
    bag: string;
  }
  function fromTo({ does, place, other, on }: Typed): FromTo {
    switch (does) {
      case 'paid-in':
        return { from: OWNER, to: place };
      case 'to-safe':
        return { from: place, to: SAFE };
      case 'float':
        return { from: SAFE, to: place };
      case 'changed':
        return { from: place, to: place };
      case 'moved':
        return { from: place, to: other };
      case 'bagged':
        return { from: place, to: NEW_BAG };
      case 'to-owner':
        return { from: place, to: OWNER };
      case 'paid-out':
      case 'unbagged':
        return { from: place, to: spentOn(on) };
    }
  }
  const begin: Typed = {
    does: 'paid-out',
    // Which is usual here, until somebody chooses.
    place: '',
    other: '',
    on: 'travel',
    amount: '',
    what: '',
    bag: '',
  };
  let photo = $state<string | null>(null);
  let isNoPicture = $state(false);
  const form = new Form({
    about: `cash ${event ?? 'none'}`,
    from: '',
    begin,
    command: async (typed) => {
      const [all, reads, moves] = await Promise.all([
        books.drawers.toArray(),
        books.drawerReads.toArray(),
        books.cashMoves.toArray(),
      ]);
      const closed = new Set(reads.map(({ drawer }) => drawer));
      const picture = photo;
      return () =>
        moveCash({
          newId,
          event,
          currency: stall.business.currency,
          typed: {
            ...fromTo({ ...typed, place, other }),
            amount: typed.amount,
            what: typed.what,
            bag: typed.bag,
          },
          photo: picture,
          counted: all.filter(({ id }) => closed.has(id)),
          bags: bagsOf(reads, moves),
        });
    },
    says: cashFault,
    saved: ({ does }) => `${cashActWords[does]}: noted.`,
    then: () => onDone(),
  });
  const { typed } = form;
  const places = $derived([
    ...drawers.map(({ id, name }) => ({ place: inDrawer(id), name })),
    ...(NEEDS_DRAWER.has(typed.does) ? [] : [{ place: SAFE, name: 'the safe' }]),
  ]);
  const usual = $derived(stall.drawer === undefined ? '' : inDrawer(stall.drawer.id));
  // A drawer that was counted meanwhile is none to choose any more.
  const chosen = (wanted: readonly CashPlace[], among: readonly CashPlace[]): CashPlace =>
    wanted.find((each) => among.includes(each)) ?? among[0] ?? '';
  const place: CashPlace = $derived(
    chosen(
      [typed.place, usual],
      places.map((each) => each.place),
    ),
  );
  const others = $derived(drawers.filter(({ id }) => inDrawer(id) !== place));
  const other: CashPlace = $derived(
    chosen(
      [typed.other],
      others.map(({ id }) => inDrawer(id)),
    ),
  );
  const right = $derived(
    takesCashOut(fromTo({ ...typed, place, other })) ? ('cash.out' as const) : null,
  );
  const isPossible = (does: CashAct): boolean =>
    does === 'moved' ? drawers.length > 1 : !NEEDS_DRAWER.has(does) || drawers.length > 0;
  const spentBefore = live(
    () => async () => {
      const moves = await books.cashMoves.orderBy('id').reverse().limit(40).toArray();
      return [...new Set(moves.map(({ what }) => what).filter((what) => what !== ''))].slice(0, 12);
    },
    [],
  );

  async function take(files: FileList | null): Promise<void> {
    const [file] = files ?? [];
    if (file === undefined) return;
    photo = await scaledDown(file, 'whole');
    isNoPicture = photo === null;
  }
  const placeLabel = $derived(
    typed.does === 'paid-in' || typed.does === 'float'
      ? 'Into'
      : typed.does === 'changed'
        ? 'Of'
        : 'Out of',
  );
</script>

<StallForm {form} {right} label="Note it" name="Cash in between">
  <div class="flex flex-wrap gap-2" role="group" aria-label="What happens">
    {#each ACTS as does (does)}
      {#if isPossible(does)}
        <button
          type="button"
          class={['btn btn-quiet', typed.does === does && '!border-primary !border-3']}
          aria-pressed={typed.does === does}
          onclick={() => (typed.does = does)}>{cashActWords[does]}</button
        >
      {/if}
    {/each}
  </div>
  <div class="grid items-start gap-4 sm:grid-cols-2">
    <Field
      label="Amount"
      at="amount"
      bind:value={typed.amount}
      inputmode="decimal"
      autocomplete="off"
    />
    <label class="grid gap-1 font-[560]">
      {placeLabel}
      <select
        class="select min-h-12 w-full"
        bind:value={() => place, (next) => (typed.place = next)}
      >
        {#each places as { place: at, name } (at)}<option value={at}>{name}</option>{/each}
      </select>
    </label>
    {#if typed.does === 'moved'}
      <label class="grid gap-1 font-[560]">
        Into
        <select
          class="select min-h-12 w-full"
          bind:value={() => other, (next) => (typed.other = next)}
        >
          {#each others as { id, name } (id)}<option value={inDrawer(id)}>{name}</option>{/each}
        </select>
      </label>
    {/if}
    {#if typed.does === 'paid-out'}
      <label class="grid gap-1 font-[560]">
        For
        <select class="select min-h-12 w-full" bind:value={typed.on}>
          {#each SPENT_ON as on (on)}<option value={on}>{spentWords[on]}</option>{/each}
        </select>
      </label>
    {/if}
    {#if typed.does === 'bagged'}
      <Field label="Number on the bag" at="bag" bind:value={typed.bag} maxlength={40} />
    {/if}
    <Field
      label="What for"
      at="what"
      bind:value={typed.what}
      maxlength={120}
      list="spent-before"
      placeholder={typed.does === 'paid-out' ? 'such as: diesel' : ''}
    />
    <datalist id="spent-before">
      {#each spentBefore.value as what (what)}<option value={what}></option>{/each}
    </datalist>
  </div>
  {#if typed.does === 'paid-out' || typed.does === 'paid-in'}
    <div class="flex flex-wrap items-center gap-3">
      {#if photo !== null}
        <img src={photo} alt="The bill" class="h-20 rounded-lg object-contain" />
        <button type="button" class="btn btn-quiet" onclick={() => (photo = null)}
          >Remove the picture</button
        >
      {/if}
      <label class="grid gap-1 font-[560]">
        A picture of the bill
        <input
          type="file"
          accept="image/*"
          capture="environment"
          class="file-input min-h-12 max-w-56"
          onchange={(chosen) => take(chosen.currentTarget.files)}
        />
      </label>
      {#if isNoPicture}
        <p class="text-error text-sm" role="alert">
          This is not a picture that the browser can read.
        </p>
      {/if}
    </div>
  {/if}
  {#if drawerAt(place) === null && places.length === 1}
    <p class="soft text-sm">No drawer is open: this is about the safe.</p>
  {/if}
</StallForm>
