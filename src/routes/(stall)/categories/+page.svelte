<script lang="ts">
  import { toast } from 'svelte-sonner';
  import type { Row } from '$lib/core/books/tables';
  import {
    inOrderOfCategory,
    orderCategories,
    setCategory,
    unsetCategories,
  } from '$lib/core/goods/categories';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import { moved } from '$lib/ui/forms/moved';
  import { categoryFault } from '$lib/ui/words/category-words';
  import MoveButtons from '../MoveButtons.svelte';
  import RightButton from '../RightButton.svelte';
  import { useStall } from '../stall.svelte';
  import CategoryForm from './CategoryForm.svelte';

  const stall = useStall();
  const { db } = stall;
  const all = live(() => () => db.books.categories.toArray(), []);
  const items = live(() => () => db.books.items.toArray(), []);
  const inOrder = $derived(inOrderOfCategory(all.value));
  const unset = $derived(unsetCategories(items.value, all.value));
  const counts = $derived.by(() => {
    const by = new Map<string, number>();
    for (const { category, variantOf, isActive } of items.value)
      if (isActive && variantOf === null) by.set(category, (by.get(category) ?? 0) + 1);
    return by;
  });
  const goodsWords = (named: string): string => {
    const count = counts.get(named) ?? 0;
    return `${String(count)} ${count === 1 ? 'item' : 'items'}`;
  };

  /** Which is being called something else. */
  let open = $state('');

  /** Puts one away or takes it up again, or makes one of a name that goods carry. */
  async function keep(
    category: Row<'categories'> | null,
    name: string,
    isActive: boolean,
    lentBy?: string,
  ): Promise<void> {
    const id = category?.id ?? null;
    const outcome = await stall.daybook.append(
      () =>
        setCategory({
          ...{ newId, id, name, isActive, categories: all.value },
          items: id === null ? items.value : [],
        }),
      lentBy === undefined ? {} : { lentBy },
    );
    if (!outcome.ok) {
      if (outcome.refusal.code !== 'slip/gone') toast.error(categoryFault(outcome.refusal).says);
      return;
    }
    await stall.daybook.settle();
    toast(`${name.trim()} is saved.`);
  }

  async function move(from: number, to: number): Promise<void> {
    if (!stall.may('set-up')) {
      toast.error('Only somebody who may change goods and events can move categories.');
      return;
    }
    const next = moved(inOrder, from, to);
    await stall.daybook.append(() => ({ ok: true, drafts: orderCategories(newId, next) }));
  }
</script>

<div class="page page-text gap-5">
  <h1>Categories</h1>
  <p class="soft">
    What goods are sorted by, in lists and in reports, in this order. Goods keep their category when
    it is called something else.
  </p>
  <ul class="sheet grid gap-3" data-testid="categories">
    {#each inOrder as category, at (category.id)}
      <li class="flex flex-wrap items-center gap-2">
        <span class="min-w-0 flex-[1_1_12rem] break-words"
          ><b>{category.name}</b>
          <span class="soft">{goodsWords(category.id)}{category.isActive ? '' : ', put away'}</span
          ></span
        >
        <button
          type="button"
          class="btn btn-quiet"
          aria-expanded={open === category.id}
          onclick={() => (open = open === category.id ? '' : category.id)}
          >Change<span class="sr-only"> {category.name}</span></button
        >
        <RightButton
          right="set-up"
          label={category.isActive ? 'Put away' : 'Use again'}
          look="btn-quiet"
          onGo={(lentBy) => keep(category, category.name, !category.isActive, lentBy)}
        />
        <MoveButtons
          name={category.name}
          {at}
          count={inOrder.length}
          onmove={(to) => move(at, to)}
        />
        {#if open === category.id}
          <div class="basis-full">
            <CategoryForm
              {category}
              categories={all.value}
              items={items.value}
              onDone={() => (open = '')}
            />
          </div>
        {/if}
      </li>
    {:else}
      {#if all.isRead}<li class="soft p-3">No category yet. Add the first below.</li>{/if}
    {/each}
  </ul>
  {#if all.isRead && items.isRead}
    <div class="sheet"><CategoryForm categories={all.value} items={items.value} /></div>
  {/if}
  {#if unset.length > 0}
    <section class="sheet grid gap-2" aria-labelledby="unset">
      <h2 id="unset">Names that goods carry and that are no category yet</h2>
      {#each unset as name (name)}
        <div class="flex flex-wrap items-center justify-between gap-2">
          <span>{name} <span class="soft">· {goodsWords(name)}</span></span>
          <RightButton
            right="set-up"
            label="Make it one"
            look="btn-quiet"
            onGo={(lentBy) => keep(null, name, true, lentBy)}
          />
        </div>
      {/each}
    </section>
  {/if}
</div>
