<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { toast } from 'svelte-sonner';
  import type { Row } from '$lib/core/books/tables';
  import { inOrderOfCategory, unsetCategories } from '$lib/core/goods/categories';
  import { setItem, type ItemRefusal, type TypedItem } from '$lib/core/goods/set-item';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import { draft as entry } from '$lib/core/daybook/kinds';
  import Field from '$lib/ui/forms/Field.svelte';
  import { dropDraft, keepDraft } from '$lib/ui/forms/typed-draft.svelte';
  import Tick from '$lib/ui/forms/Tick.svelte';
  import { itemRefusalWords } from '$lib/ui/words/item-words';
  import RightButton from '../../RightButton.svelte';
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
  type Typed = { -readonly [F in keyof TypedItem]: TypedItem[F] };
  const { item, typed: start, items, categories }: Props = $props();
  const stall = useStall();
  const { db } = stall;
  // svelte-ignore state_referenced_locally
  let typed = $state(structuredClone($state.snapshot(start)) as Typed);
  let wrong = $state.raw<ItemRefusal | null>(null);
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
  const at = $derived(item?.id ?? 'new');
  // svelte-ignore state_referenced_locally
  const from = item?.setStamp ?? page.url.searchParams.get('barcode') ?? '';
  // svelte-ignore state_referenced_locally
  keepDraft(`item ${at}`, from, () => $state.snapshot(typed));
  const isWrong = (field: string): boolean => wrong?.field === field;
  const words = $derived(wrong === null ? '' : itemRefusalWords(wrong));

  /** A scanner presses Enter behind each code: the next one follows, nothing is sent off. */
  function afterScan(event: KeyboardEvent): void {
    if (event.key !== 'Enter') return;
    event.preventDefault();
    typed.barcodes = `${typed.barcodes.trimEnd()} `.trimStart();
  }

  async function save(lentBy?: string): Promise<void> {
    const said = $state.snapshot(typed) as TypedItem;
    const laid = tables.value.find(({ id }) => id === table);
    const outcome = await stall.daybook.append(
      () => {
        const made = setItem({
          newId,
          id: item?.id ?? null,
          typed: said,
          currency: stall.business.currency,
          items,
          categories,
        });
        if (!made.ok) return made;
        const drafts = [...made.drafts];
        if (picture !== undefined)
          drafts.push(entry('photo.set', newId(), null, { item: made.id, picture }));
        if (laid !== undefined) {
          const { setStamp: _stamp, size, ...body } = laid;
          const goods = [...laid.goods, { item: made.id, width: 1 }];
          const shape = size === 'small' || size === 'large' ? size : 'middle';
          drafts.push(entry('table.set', newId(), null, { ...body, size: shape, goods }));
        }
        return { ...made, drafts };
      },
      lentBy === undefined ? {} : { lentBy },
    );
    if (!outcome.ok) {
      wrong = 'field' in outcome.refusal ? outcome.refusal : null;
      document.querySelector<HTMLElement>(`[data-field="${wrong?.field ?? ''}"] input`)?.focus();
      return;
    }
    dropDraft(`item ${at}`);
    await stall.daybook.settle();
    toast(`${said.name.trim()} is saved.`);
    await goto(page.url.searchParams.has('barcode') ? '/counter' : '/items');
  }
</script>

{#snippet saying(field: string)}
  {#if isWrong(field)}<p class="text-error text-sm" role="alert">{words}</p>{/if}
{/snippet}

<form class="grid grid-cols-[minmax(0,1fr)] gap-5" onsubmit={(event) => event.preventDefault()}>
  <section class="sheet grid content-start gap-4 sm:grid-cols-2" aria-label="What it is">
    <div data-field="name">
      <Field label="Name" bind:value={typed.name} maxlength={80} isWrong={isWrong('name')} />
      {@render saying('name')}
    </div>
    <div data-field="detail">
      <Field
        label="What tells it from others"
        bind:value={typed.detail}
        maxlength={80}
        help="Pot size, colour; not for what has variants"
      />
    </div>
    <div data-field="price">
      <Field
        label={`Price${typed.unit === '' || typed.isTimed ? '' : `, a ${typed.unit}`}${typed.isTimed ? ', an hour' : ''}`}
        bind:value={typed.price}
        inputmode="decimal"
        isWrong={isWrong('price')}
      />
      {@render saying('price')}
    </div>
    {#if hasTwoPrices}
      <div data-field="otherPrice">
        <Field
          label={`Own ${otherSide} price`}
          bind:value={typed.otherPrice}
          inputmode="decimal"
          help={`Left empty, it follows by ${stall.business.uplift} %`}
          isWrong={isWrong('otherPrice')}
        />
        {@render saying('otherPrice')}
      </div>
    {/if}
    <div data-field="code">
      <Field label="Own code" bind:value={typed.code} maxlength={40} isWrong={isWrong('code')} />
      {@render saying('code')}
    </div>
    <div data-field="barcodes">
      <Field
        label="Barcodes"
        bind:value={typed.barcodes}
        help="Several apart by blanks"
        onkeydown={afterScan}
        isWrong={isWrong('barcodes')}
      />
      {@render saying('barcodes')}
    </div>
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
    <div data-field="low">
      <Field
        label="Little is left at"
        bind:value={typed.low}
        inputmode="decimal"
        isWrong={isWrong('low')}
      />
      {@render saying('low')}
    </div>
    <div data-field="reorder">
      <Field
        label="Buy again at, in the base"
        bind:value={typed.reorder}
        inputmode="decimal"
        isWrong={isWrong('reorder')}
      />
      {@render saying('reorder')}
    </div>
    <div data-field="cost">
      <Field
        label="What it costs you, without tax"
        bind:value={typed.cost}
        inputmode="decimal"
        isWrong={isWrong('cost')}
      />
      {@render saying('cost')}
    </div>
  </section>

  <VariantsEditor bind:choices={typed.choices} bind:variants={typed.variants} price={typed.price} />
  {@render saying('choices')}
  {@render saying('variants')}
  <ExtrasEditor bind:groups={typed.extras} />
  {@render saying('extras')}

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
  {#if wrong !== null}<p class="text-error" role="alert">{words}</p>{/if}
  <RightButton right="set-up" label="Save" onGo={save} />
</form>
