<script lang="ts">
  import { goto } from '$app/navigation';
  import { dragHandleZone, dragHandle, type DndEvent } from 'svelte-dnd-action';
  import type { Row } from '$lib/core/books/tables';
  import { findItems, goodsOf } from '$lib/core/entry-line/find-items';
  import { lastDay } from '$lib/core/event/todays-event';
  import { setTable, TAG_SIZES } from '$lib/core/goods/set-table';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import Tick from '$lib/ui/forms/Tick.svelte';
  import { StallForm as Form } from '../../forms/stall-form.svelte';
  import StallForm from '../../forms/StallForm.svelte';
  import { useStall } from '../../stall.svelte';

  interface Props {
    table?: Row<'tables'>;
    tables: readonly Row<'tables'>[];
    items: readonly Row<'items'>[];
  }
  const { table, tables, items }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  // svelte-ignore state_referenced_locally
  const start = table;
  const form = new Form({
    about: `table laid out ${start?.id ?? 'new'}`,
    from: start?.setStamp ?? '',
    begin: {
      name: start?.name ?? '',
      event: start?.event ?? '',
      size: start?.size ?? 'middle',
      isActive: start?.isActive ?? true,
      /** In their order, as the drag and drop wants them: each with an id. */
      goods: (start?.goods ?? []).map(({ item, width }) => ({ id: item, width })),
    },
    command:
      ({ event, goods, ...said }) =>
      () =>
        setTable(
          newId,
          {
            ...said,
            id: start?.id ?? null,
            event: event === '' ? null : event,
            goods: goods.map(({ id, width }) => ({ item: id, width })),
          },
          tables,
        ),
    says: ({ code }) =>
      code === 'table/no-name'
        ? { field: 'name', says: 'Give the table a name.' }
        : { field: 'goods', says: 'The same goods lie on it twice.' },
    saved: ({ name }) => `${name.trim()} is saved.`,
    then: () => goto('/tables'),
  });
  const said = form.typed;
  const goods = $derived(said.goods);
  let typed = $state('');
  const byId = $derived(new Map(items.map((item) => [item.id, item])));
  const findable = $derived(goodsOf(items.filter(({ variantOf }) => variantOf === null)));
  const found = $derived(
    findItems(typed, findable).filter(({ id }) => !goods.some((each) => each.id === id)),
  );
  const events = $derived(
    stall.events.filter((each) => each.id === start?.event || lastDay(each) >= stall.today),
  );
  const STILL = matchMedia('(prefers-reduced-motion: reduce)').matches ? 0 : 150;
  const sizeWords = {
    small: 'small: more at a glance',
    middle: 'middle',
    large: 'large: easy to hit',
  };

  type Good = (typeof said.goods)[number];
  const take = ({ detail }: CustomEvent<DndEvent<Good>>): void => {
    said.goods = detail.items;
  };
  function move(at: number, by: number): void {
    const next = [...goods];
    const [moved] = next.splice(at, 1);
    if (moved === undefined) return;
    next.splice(at + by, 0, moved);
    said.goods = next;
  }
</script>

<StallForm {form}>
  <section class="sheet grid gap-4 sm:grid-cols-3" aria-label="The table">
    <Field label="Name" at="name" bind:value={said.name} maxlength={80} />
    <label class="grid gap-1 font-[560]">
      Tags
      <select class="select min-h-12 w-full" bind:value={said.size}>
        {#each TAG_SIZES as each (each)}<option value={each}>{sizeWords[each]}</option>{/each}
      </select>
    </label>
    <label class="grid gap-1 font-[560]">
      Laid out
      <select class="select min-h-12 w-full" bind:value={said.event}>
        <option value="">at every event</option>
        {#each events as each (each.id)}<option value={each.id}>only at {each.name}</option>{/each}
      </select>
    </label>
  </section>
  <section class="sheet grid gap-3" aria-labelledby="goods">
    <h2 id="goods">Goods on it</h2>
    <p class="soft">
      Drag them by the handle, or move them with the arrows. By keyboard: Enter on the handle lifts,
      the arrow keys move, Enter lays down.
    </p>
    <ul
      class="grid gap-1"
      data-testid="laid-out"
      use:dragHandleZone={{ items: [...goods], flipDurationMs: STILL, dropTargetStyle: {} }}
      onconsider={take}
      onfinalize={take}
    >
      {#each goods as good, at (good.id)}
        {@const item = byId.get(good.id)}
        {@const called = item === undefined ? 'Unknown' : item.name}
        <li class="bg-card border-base-300 flex items-center gap-2 rounded-lg border px-2">
          <span
            use:dragHandle
            class="grid size-12 cursor-grab place-items-center text-2xl"
            aria-label={`Drag ${called}`}>⠿</span
          >
          <span class="size-4 flex-none rounded-full" style:background={item?.colour ?? '#888888'}
          ></span>
          <span class="min-w-0 flex-1 truncate"
            ><b>{called}</b>{item?.detail ? `, ${item.detail}` : ''}</span
          >
          <button
            type="button"
            class={['btn btn-quiet max-sm:hidden', good.width === 2 && '!border-primary !border-3']}
            aria-pressed={good.width === 2}
            onclick={() =>
              (said.goods = goods.map((each) =>
                each.id === good.id ? { ...each, width: each.width === 2 ? 1 : 2 } : each,
              ))}>wide</button
          >
          <button
            type="button"
            class="btn btn-quiet"
            aria-label={`Move ${called} up`}
            disabled={at === 0}
            onclick={() => move(at, -1)}>↑</button
          >
          <button
            type="button"
            class="btn btn-quiet"
            aria-label={`Move ${called} down`}
            disabled={at === goods.length - 1}
            onclick={() => move(at, 1)}>↓</button
          >
          <button
            type="button"
            class="btn btn-quiet"
            aria-label={`Take ${called} off the table`}
            onclick={() => (said.goods = goods.filter(({ id }) => id !== good.id))}>×</button
          >
        </li>
      {/each}
    </ul>
    <label class="grid gap-1 font-[560]">
      Put goods on it
      <input
        class="input w-full"
        bind:value={typed}
        placeholder="Name or code"
        autocomplete="off"
      />
    </label>
    <ul class="grid">
      {#each found as item (item.id)}
        <li>
          <button
            type="button"
            class="hover:bg-base-200 flex min-h-12 w-full justify-between gap-3 rounded-lg px-3 text-left"
            onclick={() => {
              said.goods = [...goods, { id: item.id, width: 1 }];
              typed = '';
            }}
          >
            <span><b>{item.name}</b>{item.detail === '' ? '' : `, ${item.detail}`}</span>
            <span class="figure">{money.figure(item.price)}</span>
          </button>
        </li>
      {/each}
    </ul>
  </section>
  {#if start !== undefined}
    <Tick label="Is laid out" bind:checked={said.isActive} />
  {/if}
</StallForm>
