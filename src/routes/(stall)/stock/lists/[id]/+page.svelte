<script lang="ts">
  import { page } from '$app/state';
  import { SUPPLIERS, type Row } from '$lib/core/books/tables';
  import {
    isInTwoSteps,
    isOpen,
    listNumber,
    stateOf,
    underWay,
    type LineNow,
    type WholeList,
  } from '$lib/core/stock/list-state';
  import { live } from '$lib/device/live.svelte';
  import { keepRow, keepSame } from '$lib/ui/list/keep-same';
  import { dayWords } from '$lib/ui/words/date-words';
  import { stateWords, useWords } from '$lib/ui/words/stock-words';
  import { useStall } from '../../../stall.svelte';
  import { Goods, stockAt, wholeList } from '../../goods.svelte';
  import ListForm from '../ListForm.svelte';
  import DraftLines from './DraftLines.svelte';
  import ListActs from './ListActs.svelte';
  import ListThread from './ListThread.svelte';
  import PackList from './PackList.svelte';
  import ReceiveList from './ReceiveList.svelte';

  const stall = useStall();
  const { books } = stall.db;
  const goods = new Goods(stall);
  const id = $derived(page.params['id'] ?? '');
  const found = live(
    () => {
      const wanted = id;
      return async () => {
        const row = await books.lists.get(wanted);
        return row === undefined || row.setStamp === '' ? null : await wholeList(stall, row);
      };
    },
    null as WholeList | null,
  );
  let was: Row<'lists'> | undefined;
  const list = $derived.by(() => (was = keepRow(was, found.value?.list)));
  let before: readonly LineNow[] = [];
  /** By name. */
  const lines = $derived.by(() => {
    const named = (found.value?.lines ?? []).map((line) => ({
      line,
      name: goods.nameOf(line.item),
    }));
    named.sort((a, b) => (a.name < b.name ? -1 : 1));
    const now = named.map(({ line }) => line);
    before = keepSame(({ item }) => item, before, now);
    return before;
  });
  const stands = $derived(list === undefined ? 'draft' : stateOf(list, lines));
  const here = stockAt(stall, () => list?.from ?? null);
  const isFromSupplier = $derived(list?.from === SUPPLIERS);
  /** What is packed by one and moved; a delivery only arrives. */
  const isPacked = $derived(list !== undefined && !isFromSupplier);
  const isReceived = $derived(
    list !== undefined &&
      (isFromSupplier || (isInTwoSteps(list) && lines.some((line) => underWay(line) > 0))),
  );
</script>

<div class="page gap-5 [--page-width:62rem]">
  {#if list === undefined}
    {#if found.isRead}
      <h1>No such list</h1>
      <p class="sheet">
        This device knows none of that kind. <a class="plain" href="/stock/lists">Lists of goods</a>
      </p>
    {/if}
  {:else if goods.isRead}
    <div class="flex flex-wrap items-baseline justify-between gap-x-4 gap-y-1">
      <h1>{list.name} <span class="soft">{listNumber(list)}</span></h1>
      <span class="text-lg font-[600]" data-testid="list-state">{stateWords[stands]}</span>
    </div>
    <p class="-mt-3">
      {useWords[list.use]}: {goods.placeName(list.from, list.supplier)} → {goods.placeName(
        list.to,
        list.supplier,
      )}
      {#if list.day !== null}
        · wanted by {dayWords(list.day, stall.business.locale)}{/if}
      {#if list.why !== ''}· {list.why}{/if}
      {#if list.note !== ''}<span class="soft block">{list.note}</span>{/if}
    </p>
    <div class="grid grid-cols-[minmax(0,1fr)] items-start gap-6 lg:grid-cols-[1.7fr_1fr]">
      <div class="grid grid-cols-[minmax(0,1fr)] gap-5">
        {#if !isOpen(stands)}
          <DraftLines {list} {lines} {goods} here={here.value} isFixed />
        {:else if stands === 'draft'}
          <DraftLines {list} {lines} {goods} here={here.value} />
          <details>
            <summary class="min-h-10 cursor-pointer py-2">From, to, day, note</summary>
            {#key list.setStamp}<ListForm use={list.use} {list} />{/key}
          </details>
        {:else}
          {#if isReceived}<ReceiveList {list} {lines} {goods} />{/if}
          {#if isPacked}<PackList {list} {lines} {goods} here={here.value} />{/if}
        {/if}
      </div>
      <div class="grid grid-cols-[minmax(0,1fr)] gap-5">
        <ListActs {list} {lines} {stands} {goods} />
        <ListThread {list} {goods} />
      </div>
    </div>
  {/if}
</div>
