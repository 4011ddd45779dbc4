<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import type { Row } from '$lib/core/books/tables';
  import { inOrderOfCategory, unsetCategories } from '$lib/core/goods/categories';
  import { setItem, type TypedItem } from '$lib/core/goods/set-item';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import { draft as entry } from '$lib/core/daybook/kinds';
  import Field from '$lib/ui/forms/Field.svelte';
  import Saying from '$lib/ui/forms/Saying.svelte';
  import Tick from '$lib/ui/forms/Tick.svelte';
  import { itemRefusalWords } from '$lib/ui/words/item-words';
  import { StallForm as Form } from '../../forms/stall-form.svelte';
  import StallForm from '../../forms/StallForm.svelte';
  import { useStall } from '../../stall.svelte';
  import ExtrasEditor from './ExtrasEditor.svelte';
  import PhotoField from './PhotoField.svelte';
  import VariantsEditor from './VariantsEditor.svelte';

  interface Props {
    item?: Row<'items'>;
    /** What stands in the form to begin with. */
    typed: TypedItem;
    items: readonly Row<'items'>[];
    categories: readonly Row<'categories'>[];
  }
  type Changeable<T> = { -readonly [F in keyof T]: T[F] };
  const { item, typed: start, items, categories }: Props = $props();
  const stall = useStall();
  const { db } = stall;
  // svelte-ignore state_referenced_locally
  const begin: Changeable<TypedItem> = structuredClone($state.snapshot(start));
  // svelte-ignore state_referenced_locally
  const form = new Form({
    about: `item ${item?.id ?? 'new'}`,
    from: item?.setStamp ?? page.url.searchParams.get('barcode') ?? '',
    begin,
    command: (typed) => () => made(typed),
    says: (refusal) => ({ field: refusal.field, says: itemRefusalWords(refusal) }),
    saved: ({ name }) => `${name.trim()} is saved.`,
    then: () => goto(page.url.searchParams.has('barcode') ? '/counter' : '/items'),
  });
  const { typed } = form;
  let picture = $state<string | null | undefined>(undefined);
  let table = $state('');
  const hasTwoPrices = $derived(stall.business.uplift !== '0' || typed.otherPrice !== '');
  const otherSide = $derived(stall.business.typedSide === 'card' ? 'cash' : 'card');
  const makers = live(() => () => db.books.makers.toArray(), []);
  const tables = live(() => () => db.books.tables.toArray(), []);
  const names = $derived([
    ...inOrderOfCategory(categories)
      .filter(({ isActive }) => isActive)
      .map(({ name }) => name),
    ...unsetCategories(items, categories),
  ]);
  /** A scanner presses Enter behind each code: the next one follows, nothing is sent off. */
  function afterScan(event: KeyboardEvent): void {
    if (event.key !== 'Enter') return;
    event.preventDefault();
    typed.barcodes = `${typed.barcodes.trimEnd()} `.trimStart();
  }

  /** The item, its picture, and where it lies. */
  function made(said: TypedItem): ReturnType<typeof setItem> {
    const { currency } = stall.business;
    const outcome = setItem({
      newId,
      id: item?.id ?? null,
      typed: said,
      currency,
      items,
      categories,
    });
    if (!outcome.ok) return outcome;
    const drafts = [...outcome.drafts];
    if (picture !== undefined)
      drafts.push(entry('photo.set', newId(), null, { item: outcome.id, picture }));
    const laid = tables.value.find(({ id }) => id === table);
    if (laid !== undefined) {
      const { setStamp: _stamp, ...body } = laid;
      const goods = [...laid.goods, { item: outcome.id, width: 1 }];
      drafts.push(entry('table.set', newId(), null, { ...body, goods }));
    }
    return { ...outcome, drafts };
  }
</script>

<StallForm {form}>
  <section class="sheet grid content-start gap-4 sm:grid-cols-2" aria-label="What it is">
    <Field label="Name" bind:value={typed.name} maxlength={80} at="name" />
    <Field
      label="What tells it from others"
      bind:value={typed.detail}
      maxlength={80}
      help="Pot size, colour; not for what has variants"
    />
    <Field
      label={`Price${typed.unit === '' || typed.isTimed ? '' : `, a ${typed.unit}`}${typed.isTimed ? ', an hour' : ''}`}
      bind:value={typed.price}
      inputmode="decimal"
      at="price"
    />
    {#if hasTwoPrices}
      <Field
        label={`Own ${otherSide} price`}
        bind:value={typed.otherPrice}
        inputmode="decimal"
        help={`Left empty, it follows by ${stall.business.uplift} %`}
        at="otherPrice"
      />
    {/if}
    <Field label="Own code" bind:value={typed.code} maxlength={40} at="code" />
    <Field
      label="Barcodes"
      bind:value={typed.barcodes}
      help="Several apart by blanks"
      onkeydown={afterScan}
      at="barcodes"
    />
    <label class="grid content-start gap-1 font-[560]">
      Category
      <input class="input w-full" bind:value={typed.category} maxlength="80" list="categories" />
      <datalist id="categories">
        {#each names as each (each)}<option value={each}></option>{/each}
      </datalist>
    </label>
    <fieldset class="grid content-start gap-1">
      <legend class="mb-1 font-[560]">Taxes</legend>
      {#each stall.taxes as tax (tax.id)}
        <label class="flex min-h-12 items-center gap-3">
          <input
            type="checkbox"
            class="checkbox size-6 !rounded-md"
            checked={typed.taxes.includes(tax.id)}
            onchange={(event) => {
              const rest = typed.taxes.filter((id) => id !== tax.id);
              typed.taxes = event.currentTarget.checked ? [...rest, tax.id] : rest;
            }}
          />
          {tax.name}, {tax.rate} %
        </label>
      {:else}<p class="soft">No taxes are set up.</p>{/each}
    </fieldset>
  </section>

  <section class="sheet grid content-start gap-4 sm:grid-cols-2" aria-label="How it is sold">
    <h2 class="sm:col-span-2">How it is sold</h2>
    <Tick label="The seller types the price" bind:checked={typed.isOpenPrice} />
    <Tick label="By the hour: hours and minutes are typed" bind:checked={typed.isTimed} />
    {#if !typed.isTimed}
      <Field
        label="Unit of measure"
        bind:value={typed.unit}
        maxlength={12}
        help="kg, m, l; empty for what is counted"
      />
      {#if typed.unit.trim() !== ''}
        <label class="grid gap-1 font-[560]">
          Decimals of its quantity
          <select class="select min-h-12 w-full" bind:value={typed.decimals}>
            {#each [0, 1, 2, 3] as each (each)}<option value={each}>{each}</option>{/each}
          </select>
        </label>
      {/if}
    {/if}
    <Tick label="Its stock is counted" bind:checked={typed.isStocked} disabled={typed.isTimed} />
    <Field label="Little is left at" bind:value={typed.low} inputmode="decimal" at="low" />
    <Field
      label="Buy again at, in the base"
      bind:value={typed.reorder}
      inputmode="decimal"
      at="reorder"
    />
    <Field
      label="What it costs you, without tax"
      bind:value={typed.cost}
      inputmode="decimal"
      at="cost"
    />
  </section>

  <VariantsEditor bind:choices={typed.choices} bind:variants={typed.variants} price={typed.price} />
  <Saying at="choices" />
  <Saying at="variants" />
  <ExtrasEditor bind:groups={typed.extras} />
  <Saying at="extras" />

  <section class="sheet grid content-start gap-4 sm:grid-cols-2" aria-label="More">
    <h2 class="sm:col-span-2">Looks, and the rest</h2>
    <label class="grid gap-1 font-[560]">
      Colour
      <input type="color" class="h-12 w-24 rounded-lg" bind:value={typed.colour} />
    </label>
    <PhotoField item={item?.id ?? null} bind:picture />
    <label class="grid gap-1 font-[560]">
      Whose goods they are
      <select
        class="select min-h-12 w-full"
        value={typed.maker ?? ''}
        onchange={(event) => (typed.maker = event.currentTarget.value || null)}
      >
        <option value="">our own</option>
        {#each makers.value.filter((each) => each.isActive) as each (each.id)}
          <option value={each.id}>{each.number} {each.name}</option>
        {/each}
      </select>
    </label>
    <Field label="Commodity code" bind:value={typed.commodityCode} maxlength={20} />
    <div class="sm:col-span-2">
      <Field label="Description" bind:value={typed.description} maxlength={500} />
    </div>
    <Tick label="Can be brought back" bind:checked={typed.isReturnable} />
    <Tick label="Earns points" bind:checked={typed.earnsPoints} />
    {#if item === undefined && tables.value.length > 0}
      <label class="grid gap-1 font-[560]">
        Lay it out on
        <select class="select min-h-12 w-full" bind:value={table}>
          <option value="">no table yet</option>
          {#each tables.value.filter((each) => each.isActive) as each (each.id)}
            <option value={each.id}>{each.name}</option>
          {/each}
        </select>
      </label>
    {:else}
      <Tick label="Is sold" bind:checked={typed.isActive} />
    {/if}
  </section>
  {#if item !== undefined && item.isActive && !typed.isActive}
    <p class="sheet border-accent border-l-8">
      It goes from every table and from the search; past sales keep it as it was.
    </p>
  {/if}
</StallForm>
