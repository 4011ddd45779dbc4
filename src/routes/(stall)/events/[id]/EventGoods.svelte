<script lang="ts">
  /** The lists of goods of an event, and how to make the one that comes next. */
  import type { Row } from '$lib/core/books/tables';
  import { stageOf } from '$lib/core/event/stage';
  import { isOpen, listNumber, stateOf } from '$lib/core/stock/list-state';
  import { stateWords, useWords } from '$lib/ui/words/stock-words';
  import { Goods } from '../../stock/goods.svelte';

  interface Props {
    event: Row<'events'>;
  }
  const { event }: Props = $props();
  const goods = new Goods();
  const own = $derived(
    goods.lists
      .filter(({ list }) => list.event === event.id)
      .map((whole) => ({ ...whole, state: stateOf(whole.list, whole.lines) }))
      .filter(({ state }) => state !== 'off'),
  );
  const stage = $derived(stageOf(event));
  const isPacking = $derived(stage === 'planned' || stage === 'packed');
  const use = $derived(isPacking ? 'load' : 'unload');
  const hasOpen = $derived(own.some(({ list, state }) => list.use === use && isOpen(state)));
</script>

<section class="sheet flex flex-wrap items-center gap-3" aria-label="Its goods">
  <h2 class="mr-2">Goods</h2>
  {#each own as { list, state } (list.id)}
    <a class="btn btn-quiet" href="/stock/lists/{list.id}"
      >{useWords[list.use]}
      {listNumber(list)} <span class="soft font-normal">{stateWords[state]}</span></a
    >
  {/each}
  {#if !hasOpen && stage !== 'settled'}
    <a
      class={['btn', isPacking && own.length === 0 ? 'btn-main px-6' : 'btn-quiet']}
      href="/stock/lists/new?use={use}&event={event.id}"
      >{isPacking ? 'Make a load list' : 'Make an unload list'}</a
    >
  {/if}
  {#if !isPacking && stage !== 'settled'}
    <a class="btn btn-quiet" href="/stock/counts/new?place={event.id}">Count the stock</a>
  {/if}
</section>
