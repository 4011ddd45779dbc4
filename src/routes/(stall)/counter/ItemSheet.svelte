<script lang="ts">
  import type { Row } from '$lib/core/books/tables';
  import {
    chooseExtra,
    chosenExtras,
    extrasToBegin,
    lackingGroup,
    type ChosenExtras,
  } from '$lib/core/goods/extras';
  import { hoursOf } from '$lib/core/goods/hours';
  import {
    choose,
    chosenToBegin,
    possible,
    variantFor,
    variantsOf,
    type Chosen,
  } from '$lib/core/goods/variants';
  import { readAmount } from '$lib/core/money/amount-text';
  import { readQuantity } from '$lib/core/money/typed';
  import { lineAmount } from '$lib/core/slip/line-amount';
  import type { PutWith } from '$lib/core/slip/open-slip';
  import { leftWords } from '$lib/ui/words/money-words';
  import { refusalWords } from '$lib/ui/words/refusal-words';
  import { useStall } from '../stall.svelte';
  import { usualOf, type Usual } from './usual';

  interface Props {
    item: Row<'items'>;
    items: readonly Row<'items'>[];
    /** Thousandths, as the entry line understood it. */
    quantity: number;
    onput: (item: Row<'items'>, quantity: number, said: PutWith) => void;
    onclose: () => void;
  }
  const { item, items, quantity, onput, onclose }: Props = $props();
  const stall = useStall();
  const { db } = stall;
  const money = $derived(stall.money);
  const variants = $derived(variantsOf(item, items));

  // Asked once for each item: the sheet is made anew for the next.
  // svelte-ignore state_referenced_locally
  let chosen = $state.raw<Chosen>(chosenToBegin(item.choices));
  // svelte-ignore state_referenced_locally
  let extras = $state.raw<ChosenExtras>(extrasToBegin(item.extras));
  // svelte-ignore state_referenced_locally
  let count = $state(item.isTimed ? '1' : String(quantity / 1000));
  // svelte-ignore state_referenced_locally
  let price = $state(item.isOpenPrice && item.price > 0 ? money.plain(item.price) : '');
  let usual = $state.raw<Usual | null>(null);
  let left = $state.raw<ReadonlyMap<string, number>>(new Map());
  let dialog = $state<HTMLDialogElement>();

  $effect(() => {
    dialog?.showModal();
    void usualOf(db, item, variants).then((found) => (usual = found));
    const place = stall.event?.id;
    if (place !== undefined)
      void db.books.stock
        .bulkGet(variants.map(({ id }) => [place, id]))
        .then(
          (rows) =>
            (left = new Map(rows.flatMap((row) => (row ? [[row.item, row.quantity]] : [])))),
        );
  });

  const variant = $derived(item.choices.length === 0 ? item : variantFor(variants, chosen));
  const lacking = $derived(lackingGroup(item.extras, extras));
  const typedPrice = $derived(readAmount(price, money.currency));
  const many = $derived(item.isTimed ? hoursOf(count) : readQuantity(count));
  const unit = $derived(
    item.isOpenPrice ? (typedPrice.ok ? typedPrice.amount : null) : (variant?.price ?? null),
  );
  const added = $derived(chosenExtras(item.extras, extras));
  const comesTo = $derived(
    unit === null || many === null || many <= 0
      ? null
      : lineAmount(unit + added.reduce((all, each) => all + each.price, 0), many),
  );
  const wants = $derived.by(() => {
    if (variant === undefined) {
      const at = chosen.indexOf(null);
      return at === -1
        ? 'There is none of these.'
        : `Choose ${item.choices[at]?.name.toLowerCase() ?? 'the rest'}.`;
    }
    if (lacking !== null) return `Choose ${String(lacking.least)} of “${lacking.name}”.`;
    if (item.isOpenPrice && !typedPrice.ok) return refusalWords(typedPrice.refusal, money);
    if (many === null || many <= 0)
      return item.isTimed ? 'Type hours and minutes, such as 1:20.' : 'Type how many.';
    return '';
  });

  function put(): void {
    if (variant === undefined || wants !== '' || many === null) return;
    onput(variant, many, {
      ...(added.length === 0 ? {} : { extras: added }),
      ...(item.isOpenPrice && unit !== null ? { price: unit } : {}),
    });
  }
  function putUsual(one: Usual): void {
    onput(one.item, 1000, one.extras.length === 0 ? {} : { extras: one.extras });
  }
</script>

<dialog
  bind:this={dialog}
  class="sheet m-auto max-h-[94dvh] w-[min(34rem,96vw)] overflow-y-auto backdrop:bg-black/40"
  aria-labelledby="item-sheet"
  {onclose}
>
  <form
    class="grid gap-4"
    onsubmit={(event) => {
      event.preventDefault();
      put();
    }}
  >
    <div class="flex items-start justify-between gap-3">
      <h2 id="item-sheet">{item.name}</h2>
      <button type="button" class="btn btn-quiet" onclick={() => dialog?.close()}>Cancel</button>
    </div>
    {#if item.description !== ''}<p class="soft">{item.description}</p>{/if}
    {#if usual !== null}
      {@const one = usual}
      <button
        type="button"
        class="btn btn-quiet h-auto min-h-14 justify-between py-2 text-left"
        onclick={() => putUsual(one)}
      >
        <span
          ><span class="soft block text-sm">The usual</span>{[
            one.item.detail,
            ...one.extras.map(({ name }) => `with ${name}`),
          ]
            .filter((part) => part !== '')
            .join(', ')}</span
        >
        <span class="amount"
          >{money.text(one.extras.reduce((all, each) => all + each.price, one.item.price))}</span
        >
      </button>
    {/if}
    {#each item.choices as choice, at (choice.name)}
      {@const open = possible(variants, chosen, at)}
      <fieldset class="grid gap-1">
        <legend class="mb-1 font-[560]">{choice.name}</legend>
        <div class="flex flex-wrap gap-2">
          {#each choice.values as value (value)}
            {@const isChosen = chosen[at] === value}
            <button
              type="button"
              class={['btn btn-quiet min-w-16', isChosen && '!border-primary !border-3']}
              aria-pressed={isChosen}
              disabled={!open.has(value)}
              onclick={() => (chosen = choose(chosen, at, value))}>{value}</button
            >
          {/each}
        </div>
      </fieldset>
    {/each}
    {#if item.choices.length > 0 && variant !== undefined}
      <p class="soft">
        {leftWords(variant.isStocked ? (left.get(variant.id) ?? 0) : null, variant.unit)}
      </p>
    {/if}
    {#each item.extras as group, at (group.name)}
      <fieldset class="grid gap-1">
        <legend class="mb-1 font-[560]"
          >{group.name}
          <span class="soft font-normal"
            >{group.least === 0
              ? `up to ${String(group.most)}`
              : group.least === group.most
                ? String(group.least)
                : `${String(group.least)} to ${String(group.most)}`}</span
          ></legend
        >
        <div class="flex flex-wrap gap-2">
          {#each group.options as option (option.name)}
            {@const isChosen = extras[at]?.includes(option.name) === true}
            <button
              type="button"
              class={['btn btn-quiet', isChosen && '!border-primary !border-3']}
              aria-pressed={isChosen}
              onclick={() => (extras = chooseExtra(item.extras, extras, at, option.name))}
              >{option.name}{option.price === 0 ? '' : ` +${money.figure(option.price)}`}</button
            >
          {/each}
        </div>
      </fieldset>
    {/each}
    <div class="grid grid-cols-2 gap-3">
      {#if item.isOpenPrice}
        <label class="grid gap-1 font-[560]">
          Price
          <input
            class="input figure w-full"
            inputmode="decimal"
            autocomplete="off"
            bind:value={price}
          />
        </label>
      {/if}
      <label class="grid gap-1 font-[560]">
        {item.isTimed
          ? 'Hours and minutes'
          : item.unit === ''
            ? 'How many'
            : `How much, ${item.unit}`}
        <input
          class="input figure w-full"
          inputmode={item.isTimed ? 'text' : 'decimal'}
          autocomplete="off"
          bind:value={count}
          onfocus={(event) => event.currentTarget.select()}
        />
      </label>
    </div>
    <button class="btn btn-main min-h-14 justify-between px-5" disabled={wants !== ''}>
      <span>{wants === '' ? 'Put it on' : wants}</span>
      <span class="figure">{comesTo === null ? '' : money.text(comesTo)}</span>
    </button>
  </form>
</dialog>
