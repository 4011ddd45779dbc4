<script lang="ts" generics="R">
  import type { Snippet } from 'svelte';
  import { MediaQuery } from 'svelte/reactivity';
  import { fitting, nextOrder, sortedBy, type Column, type Order } from '../../core/list/list-view';
  import Field from '../forms/Field.svelte';
  import { saveList } from './save-list';
  import { VirtualRows } from './virtual-rows.svelte';

  interface Props {
    /** What it lists, for those who do not see it, and for the name of its file. */
    name: string;
    rows: readonly R[];
    /** The first of them names the row. */
    columns: readonly Column<R>[];
    keyOf: (row: R) => string;
    order: Order;
    /** How the first cell of a row looks, where it is more than its text. */
    first?: Snippet<[R]>;
    /** Columns that only stand where there is room for them. */
    wide?: readonly string[];
    /** Looks of a cell. */
    looks?: (row: R, column: string) => string;
    /** What to say where nothing fits, or nothing is there. */
    empty: string;
    find?: string;
    testid?: string;
  }
  const {
    name,
    rows,
    columns,
    keyOf,
    order: begin,
    first,
    wide = [],
    looks = () => '',
    empty,
    find = 'Find in it',
    testid,
  }: Props = $props();
  /** So few are simply there; more are a list of their own that scrolls. */
  const FEW = 60;
  const ROW = 56;

  let typed = $state('');
  // svelte-ignore state_referenced_locally
  let order = $state.raw(begin);
  const sorted = $derived(sortedBy(rows, columns, order));
  const shown = $derived(fitting(sorted, typed));
  const isNarrow = new MediaQuery('(max-width: 639.98px)');
  /** The columns that there is room for. */
  const standing = $derived(
    isNarrow.current ? columns.filter(({ key }) => !wide.includes(key)) : columns,
  );
  const isLong = $derived(rows.length > FEW);
  const virtual = new VirtualRows(() => (isLong ? shown.length : 0), ROW);
  const inView = $derived(
    isLong
      ? virtual.window.rows.flatMap(({ index }) => {
          const row = shown[index];
          return row === undefined ? [] : [{ row, index }];
        })
      : shown.map((row, index) => ({ row, index })),
  );
  const sortOf = (key: string): 'ascending' | 'descending' | undefined =>
    order.column !== key ? undefined : order.isDown ? 'descending' : 'ascending';
  const layout = ({ is }: Column<R>): string => (is === 'text' ? '!text-left' : '');
  const text = (row: R, { show, value }: Column<R>): string =>
    show === undefined ? String(value(row) ?? '') : show(row);
</script>

{#snippet arrow({ key }: Column<R>)}
  <span aria-hidden="true" class="w-3">{order.column !== key ? '' : order.isDown ? '↓' : '↑'}</span>
{/snippet}

<div class="mb-2 flex flex-wrap items-end justify-between gap-3">
  <div class="min-w-0 flex-[1_1_14rem]">
    <Field label={find} bind:value={typed} autocomplete="off" type="search" />
  </div>
  <p class="soft pb-3" role="status">
    {shown.length === rows.length ? `${rows.length} in all` : `${shown.length} of ${rows.length}`}
  </p>
  <button
    type="button"
    class="btn btn-quiet"
    disabled={shown.length === 0}
    onclick={() => saveList(name.toLowerCase().replaceAll(/\s+/g, '-'), shown, columns)}
    >Save as a file</button
  >
</div>
<!-- A list that scrolls by itself is scrolled by keys as well. -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div
  class={['overflow-x-auto', isLong && 'max-h-[70dvh] overflow-y-auto']}
  bind:this={virtual.scroller}
  role="region"
  aria-label={name}
  tabindex={isLong ? 0 : -1}
>
  <table class="rows" aria-rowcount={shown.length + 1} data-testid={testid}>
    <thead class={[isLong && 'bg-card sticky top-0 z-10']}>
      <tr aria-rowindex={1}>
        {#each standing as column (column.key)}
          <th
            scope="col"
            class={['!py-0 !align-middle', layout(column)]}
            aria-sort={sortOf(column.key)}
          >
            <button
              type="button"
              class={[
                'inline-flex min-h-12 min-w-12 items-center gap-1',
                column.is === 'figure' && 'justify-end',
              ]}
              onclick={() => (order = nextOrder(order, column))}
            >
              {#if column.is === 'figure'}{@render arrow(column)}{/if}
              {column.head}
              {#if column.is === 'text'}{@render arrow(column)}{/if}
            </button>
          </th>
        {/each}
      </tr>
    </thead>
    <tbody>
      {#if isLong && virtual.window.above > 0}
        <tr aria-hidden="true" style:height="{virtual.window.above}px"></tr>
      {/if}
      {#each inView as { row, index } (keyOf(row))}
        <tr
          data-row={keyOf(row)}
          data-index={index}
          aria-rowindex={index + 2}
          style:height="{ROW}px"
          {@attach isLong ? virtual.measure : undefined}
        >
          {#each standing as column, at (column.key)}
            <td
              class={[
                '!align-middle',
                layout(column),
                column.is === 'figure' && 'figure',
                looks(row, column.key),
              ]}
            >
              {#if at === 0 && first !== undefined}{@render first(row)}{:else}{text(
                  row,
                  column,
                )}{/if}
            </td>
          {/each}
        </tr>
      {:else}
        {#if shown.length === 0}
          <tr><td colspan={standing.length} class="soft">{empty}</td></tr>
        {/if}
      {/each}
      {#if isLong && virtual.window.below > 0}
        <tr aria-hidden="true" style:height="{virtual.window.below}px"></tr>
      {/if}
    </tbody>
  </table>
</div>
