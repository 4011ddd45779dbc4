<script lang="ts">
  import { isOpen, listNumber, stateOf, type WholeList } from '$lib/core/stock/list-state';
  import { dayWords } from '$lib/ui/words/date-words';
  import { counted, quantityWords } from '$lib/ui/words/money-words';
  import { stateWords, useWords } from '$lib/ui/words/stock-words';
  import { useStall } from '../../stall.svelte';
  import { Goods } from '../goods.svelte';

  const stall = useStall();
  const goods = new Goods(stall);
  const byNumber = (a: WholeList, b: WholeList): number =>
    a.list.setStamp < b.list.setStamp ? 1 : -1;
  const all = $derived(
    goods.lists.toSorted(byNumber).map((whole) => ({
      ...whole,
      state: stateOf(whole.list, whole.lines),
    })),
  );
  const open = $derived(all.filter(({ state }) => isOpen(state)));
  const ended = $derived(all.filter(({ state }) => !isOpen(state)).slice(0, 50));
  const says = ({ list, lines }: WholeList): string => {
    const total = (of: (line: WholeList['lines'][number]) => number): number =>
      lines.reduce((sum, line) => sum + of(line), 0);
    const wanted = total((line) => line.wanted);
    const done = total((line) => Math.max(line.received, line.packed));
    const things = `${quantityWords(done, '')} of ${quantityWords(wanted, '')}`;
    const day =
      list.day === null ? '' : ` · wanted by ${dayWords(list.day, stall.business.locale)}`;
    return `${counted(lines.length, 'item')}, ${things}${day}`;
  };
</script>

{#snippet cards(lists: typeof all)}
  <ul class="grid gap-3">
    {#each lists as whole (whole.list.id)}
      {@const { list, state } = whole}
      <li>
        <a class="sheet grid grid-cols-[minmax(0,1fr)_auto] gap-x-4" href="/stock/lists/{list.id}">
          <b class="text-lg font-[650]">{useWords[list.use]} {listNumber(list)}</b>
          <span class={[state === 'draft' ? 'text-error font-[600]' : 'text-secondary']}
            >{stateWords[state]}</span
          >
          <span class="col-span-full"
            >{goods.placeName(list.from, list.supplier)} → {goods.placeName(
              list.to,
              list.supplier,
            )}</span
          >
          <span class="soft col-span-full text-sm">{isOpen(state) ? says(whole) : list.why}</span>
        </a>
      </li>
    {/each}
  </ul>
{/snippet}

<div class="page page-text gap-5">
  <div class="flex flex-wrap items-center justify-between gap-3">
    <h1>Lists of goods</h1>
    <a class="btn btn-main px-6" href="/stock/lists/new">A new list</a>
  </div>
  {#if open.length > 0}
    {@render cards(open)}
  {:else if goods.isRead}
    <p class="sheet soft">
      No list is open. A load list says what is taken to an event; an order, what is bought.
    </p>
  {/if}
  {#if ended.length > 0}
    <h2>Ended</h2>
    {@render cards(ended)}
  {/if}
</div>
