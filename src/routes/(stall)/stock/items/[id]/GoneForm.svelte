<script lang="ts">
  /** Goods that were not sold and are gone, or are somewhere else by now. */
  import type { Row } from '$lib/core/books/tables';
  import { GONE } from '$lib/core/daybook/kinds/stock-moved';
  import { moveGoods } from '$lib/core/stock/move-goods';
  import { newId } from '$lib/device/new-id';
  import Choice from '$lib/ui/forms/Choice.svelte';
  import Field from '$lib/ui/forms/Field.svelte';
  import { listFault, reasonWords } from '$lib/ui/words/stock-words';
  import { StallForm as Form } from '../../../forms/stall-form.svelte';
  import StallForm from '../../../forms/StallForm.svelte';
  import { useStall } from '../../../stall.svelte';
  import type { Goods } from '../../goods.svelte';
  import { itemName } from '$lib/core/goods/item-name';

  interface Props {
    item: Row<'items'>;
    places: readonly Row<'stock'>[];
    goods: Goods;
  }
  const { item, places, goods }: Props = $props();
  const stall = useStall();
  // svelte-ignore state_referenced_locally
  const [of, first] = [item, places[0]?.place ?? 'base'];
  const form = new Form({
    about: `gone ${of.id}`,
    from: '',
    begin: { quantity: '', from: first, became: 'broken', note: '' },
    command: (typed) => () =>
      moveGoods({
        newId,
        item: of,
        typed,
        event: stall.events.some(({ id }) => id === typed.from) ? typed.from : null,
      }),
    says: listFault,
    saved: ({ quantity }) => `${quantity.trim()} × ${itemName(of)}: that is in the books.`,
  });
  const { typed } = form;
  const from = $derived(
    places.map(({ place }) => ({ value: place, label: goods.placeName(place) })),
  );
  const became = $derived([
    ...GONE.map((each) => ({ value: each, label: `was ${reasonWords(each)}` })),
    ...goods.choices
      .filter(({ value }) => value !== typed.from)
      .map(({ value, label }) => ({ value, label: `is at ${label} now` })),
  ]);
</script>

<section class="sheet" aria-labelledby="gone">
  <h2 id="gone" class="mb-3">Gone, or moved</h2>
  <StallForm
    {form}
    right="stock.move"
    label="Put it in the books"
    look="btn-quiet"
    class="grid items-start gap-4 sm:grid-cols-2"
  >
    <Field
      label="How much"
      bind:value={typed.quantity}
      inputmode="decimal"
      autocomplete="off"
      maxlength={12}
    />
    <Choice label="From" options={from} bind:value={typed.from} />
    <Choice label="It" options={became} bind:value={typed.became} />
    <Field label="Note" bind:value={typed.note} maxlength={200} autocomplete="off" />
  </StallForm>
</section>
