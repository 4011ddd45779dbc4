<script lang="ts">
  import { goto } from '$app/navigation';
  import { BASE, type Row } from '$lib/core/books/tables';
  import { PLACE_SORTS } from '$lib/core/daybook/kinds/place-set';
  import { quantityText, thousandths } from '$lib/core/money/units';
  import { setPlace } from '$lib/core/stock/places';
  import { newId } from '$lib/device/new-id';
  import { underKey } from '$lib/device/under-key';
  import Choice from '$lib/ui/forms/Choice.svelte';
  import Field from '$lib/ui/forms/Field.svelte';
  import Saying from '$lib/ui/forms/Saying.svelte';
  import Tick from '$lib/ui/forms/Tick.svelte';
  import { placeFault, sortWords } from '$lib/ui/words/stock-words';
  import { StallForm as Form } from '../../../forms/stall-form.svelte';
  import StallForm from '../../../forms/StallForm.svelte';
  import { useStall } from '../../../stall.svelte';
  import type { Goods } from '../../goods.svelte';

  interface Props {
    goods: Goods;
    place?: Row<'places'>;
  }
  const { goods, place }: Props = $props();
  const stall = useStall();
  const { books } = stall.db;
  // svelte-ignore state_referenced_locally
  const start = place;
  const limit = (of: number | null | undefined): string =>
    of == null ? '' : quantityText(thousandths(of));
  const form = new Form({
    about: `place ${start?.id ?? 'new'}`,
    from: start?.setStamp ?? '',
    begin: {
      name: start?.name ?? '',
      sort: start?.sort ?? 'store',
      within: start?.within ?? BASE,
      code: start?.code ?? '',
      mostWeight: limit(start?.mostWeight),
      mostCrates: limit(start?.mostCrates),
      isActive: start?.isActive ?? true,
    },
    command: async (typed) => {
      const rows = await books.places.toArray();
      const there = start === undefined ? [] : await underKey(books.stock, start.id).toArray();
      const hasGoods = there.some(({ quantity }) => quantity !== 0);
      return () => setPlace({ newId, id: start?.id ?? null, typed, places: rows, hasGoods });
    },
    says: placeFault,
    saved: ({ name }) => `${name.trim()} is saved.`,
    then: () => goto('/stock/places'),
  });
  const { typed } = form;
  const isBase = $derived(start?.id === BASE);
  const homes = $derived(
    goods.places
      .filter(({ id, isActive }) => isActive && id !== start?.id)
      .map((each) => ({ value: each.id, label: goods.placePath(each) })),
  );
</script>

<StallForm {form}>
  <section class="sheet grid items-start gap-4 sm:grid-cols-2" aria-label="What it is">
    <Field label="Name" at="name" bind:value={typed.name} maxlength={80} autocomplete="off" />
    {#if !isBase}
      <label class="grid gap-1 font-[560]">
        It is
        <select class="select min-h-12 w-full" bind:value={typed.sort}>
          {#each PLACE_SORTS.filter((each) => each !== 'base') as each (each)}
            <option value={each}>{sortWords[each]}</option>
          {/each}
        </select>
      </label>
    {/if}
    {#if typed.sort === 'area'}
      <Choice
        label="In"
        options={homes}
        bind:value={typed.within}
        isWrong={form.faults.at('within') !== ''}
      />
    {/if}
    <Field
      label="Code on its label"
      at="code"
      bind:value={typed.code}
      maxlength={40}
      autocomplete="off"
      help="What a scanner reads there; empty for none"
    />
    {#if typed.sort === 'van'}
      <Field
        label="Carries at most, kg"
        at="mostWeight"
        bind:value={typed.mostWeight}
        inputmode="decimal"
      />
      <Field
        label="Holds at most, crates"
        at="mostCrates"
        bind:value={typed.mostCrates}
        inputmode="decimal"
      />
    {/if}
    {#if start !== undefined && !isBase}
      <div class="sm:col-span-2">
        <Tick label="In use" bind:checked={typed.isActive} />
        <Saying at="isActive" />
      </div>
    {/if}
  </section>
</StallForm>
