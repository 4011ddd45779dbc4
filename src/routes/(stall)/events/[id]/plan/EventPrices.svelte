<script lang="ts">
  /** Prices that hold at this event alone. */
  import type { Row } from '$lib/core/books/tables';
  import { itemAt } from '$lib/core/event/event-prices';
  import { setPrices } from '$lib/core/event/set-groups';
  import { categoryName } from '$lib/core/goods/categories';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import Choice from '$lib/ui/forms/Choice.svelte';
  import Field from '$lib/ui/forms/Field.svelte';
  import { groupFault } from '$lib/ui/words/event-words';
  import { StallForm as Form } from '../../../forms/stall-form.svelte';
  import StallForm from '../../../forms/StallForm.svelte';
  import { useStall } from '../../../stall.svelte';
  import { Goods } from '../../../stock/goods.svelte';
  import { itemName } from '$lib/core/goods/item-name';

  interface Props {
    event: Row<'events'>;
  }
  const { event }: Props = $props();
  const stall = useStall();
  const goods = new Goods(stall);
  const categories = live(() => () => stall.db.books.categories.toArray(), []);
  // svelte-ignore state_referenced_locally
  const start = event;
  const { currency } = stall.business;
  const form = new Form({
    about: `prices ${start.id}`,
    from: start.pricesStamp,
    begin: {
      single: start.single.map(({ item, price }) => ({ item, price: stall.money.plain(price) })),
      over: start.over.map(({ category, percent, isOff, step }) => ({
        category,
        percent: `${isOff ? '-' : ''}${percent}`,
        step: stall.money.plain(step),
      })),
    },
    command: (typed) => () => setPrices(newId, start, typed, currency),
    says: groupFault,
    saved: () => `${start.short} has its prices. Sales so far stay as they were.`,
  });
  const { typed } = form;
  const items = $derived(
    [...goods.items.values()]
      .filter(({ isActive, isOpenPrice }) => isActive && !isOpenPrice)
      .map((item) => ({
        value: item.id,
        label: `${itemName(item)}, ${stall.money.text(item.price)}`,
      })),
  );
  const used = $derived(
    [...new Set([...goods.items.values()].map(({ category }) => category))].filter(
      (each) => each !== '',
    ),
  );
  /** What some goods would cost, so that one sees what a percentage does. */
  const shown = $derived(
    event.over.length === 0
      ? []
      : [...goods.items.values()]
          .filter(({ isActive, price }) => isActive && price > 0)
          .map((item) => ({ item, now: itemAt(item, event).price }))
          .filter(({ item, now }) => item.price !== now)
          .slice(0, 4),
  );
</script>

<section class="sheet" aria-labelledby="prices">
  <h2 id="prices" class="mb-3">Prices here</h2>
  <StallForm {form} right="event.plan" look="btn-quiet" label="Save the prices" name="Prices here">
    {#each typed.over as each, at (at)}
      <div class="grid grid-cols-2 items-end gap-3 sm:grid-cols-[1.6fr_1fr_1fr_auto]">
        <label class="grid gap-1 font-[560] max-sm:col-span-2">
          Of
          <select class="select min-h-12 w-full" bind:value={each.category}>
            <option value="">everything</option>
            {#each used as category (category)}
              <option value={category}>{categoryName(category, categories.value)}</option>
            {/each}
          </select>
        </label>
        <Field
          label="Percent on top"
          at="percent {at}"
          bind:value={each.percent}
          inputmode="text"
          placeholder="10, or -10"
        />
        <Field
          label="Rounded to"
          at="step {at}"
          bind:value={each.step}
          inputmode="decimal"
          placeholder={stall.money.plain(50)}
        />
        <button
          type="button"
          class="btn btn-quiet justify-self-start"
          aria-label="Remove this percentage"
          onclick={() => (typed.over = typed.over.filter((_, i) => i !== at))}>×</button
        >
      </div>
    {/each}
    {#each typed.single as each, at (at)}
      <div class="grid grid-cols-2 items-end gap-3 sm:grid-cols-[2.6fr_1fr_auto]">
        <div class="max-sm:col-span-2">
          <Choice label="Item" options={items} bind:value={each.item} />
        </div>
        <Field label="Price here" at="price {at}" bind:value={each.price} inputmode="decimal" />
        <button
          type="button"
          class="btn btn-quiet justify-self-start"
          aria-label="Remove this price"
          onclick={() => (typed.single = typed.single.filter((_, i) => i !== at))}>×</button
        >
      </div>
    {/each}
    <div class="flex flex-wrap gap-2">
      <button
        type="button"
        class="btn btn-quiet"
        onclick={() => typed.over.push({ category: '', percent: '', step: '' })}
        >A percentage</button
      >
      <button
        type="button"
        class="btn btn-quiet"
        onclick={() => typed.single.push({ item: '', price: '' })}>A single price</button
      >
    </div>
    {#if shown.length > 0}
      <p class="soft" data-testid="prices-shown">
        {shown.map(({ item, now }) => `${itemName(item)} ${stall.money.text(now)}`).join(' · ')} …
      </p>
    {/if}
  </StallForm>
</section>
