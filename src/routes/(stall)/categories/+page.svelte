<script lang="ts">
  import { toast } from 'svelte-sonner';
  import type { Row } from '$lib/core/books/tables';
  import {
    inOrderOfCategory,
    orderCategories,
    setCategory,
    unsetCategories,
    type CategoryRefusal,
  } from '$lib/core/goods/categories';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import { moved } from '$lib/ui/forms/moved';
  import MoveButtons from '../MoveButtons.svelte';
  import RightButton from '../RightButton.svelte';
  import { useStall } from '../stall.svelte';

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

  /** What is being typed, by category; a new one has none. */
  let typed = $state<Record<string, string | undefined>>({});
  let added = $state('');
  let wrong = $state.raw<{ readonly at: string; readonly refusal: CategoryRefusal } | null>(null);
  const wordsOf = (refusal: CategoryRefusal): string =>
    refusal.code === 'category/no-name'
      ? 'Give it a name.'
      : `There is a category called ${refusal.name} already.`;

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
          newId,
          id,
          name,
          isActive,
          categories: all.value,
          items: id === null ? items.value : [],
        }),
      lentBy === undefined ? {} : { lentBy },
    );
    if (!outcome.ok) {
      wrong =
        outcome.refusal.code === 'slip/gone' ? null : { at: id ?? '', refusal: outcome.refusal };
      return;
    }
    wrong = null;
    // What is being typed by now stays.
    if (id === null && added === name) added = '';
    else if (id !== null && typed[id] === name) typed[id] = undefined;
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
      {@const name = typed[category.id] ?? category.name}
      <li class="flex flex-wrap items-center gap-2">
        <form
          class="flex min-w-0 flex-[1_1_16rem] flex-wrap items-center gap-2"
          onsubmit={(event) => event.preventDefault()}
        >
          <input
            class={['input min-w-0 flex-1', wrong?.at === category.id && '!border-error']}
            aria-label={`Name of ${category.name}`}
            aria-invalid={wrong?.at === category.id}
            maxlength="80"
            value={name}
            oninput={(event) => (typed[category.id] = event.currentTarget.value)}
          />
          <span class="soft">{goodsWords(category.id)}{category.isActive ? '' : ', put away'}</span>
          {#if name !== category.name}
            <RightButton
              right="set-up"
              label="Save"
              look="btn-quiet"
              onGo={(lentBy) => keep(category, name, category.isActive, lentBy)}
            />
          {/if}
        </form>
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
        {#if wrong?.at === category.id}
          <p class="text-error basis-full" role="alert">{wordsOf(wrong.refusal)}</p>
        {/if}
      </li>
    {:else}
      {#if all.isRead}<li class="soft p-3">No category yet. Add the first below.</li>{/if}
    {/each}
  </ul>
  <form
    class="sheet flex flex-wrap items-end gap-3"
    aria-label="A new category"
    onsubmit={(event) => event.preventDefault()}
  >
    <label class="grid min-w-0 flex-[1_1_14rem] gap-1 font-[560]">
      New category
      <input
        class={['input w-full', wrong?.at === '' && '!border-error']}
        aria-invalid={wrong?.at === ''}
        maxlength="80"
        bind:value={added}
      />
    </label>
    <RightButton
      right="set-up"
      label="Add it"
      look="btn-quiet"
      onGo={(lentBy) => keep(null, added, true, lentBy)}
    />
    {#if wrong?.at === ''}
      <p class="text-error basis-full" role="alert">{wordsOf(wrong.refusal)}</p>
    {/if}
  </form>
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
