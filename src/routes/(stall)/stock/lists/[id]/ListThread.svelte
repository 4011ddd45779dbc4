<script lang="ts">
  /** A thread with a knot for each thing that happened to a list. */
  import type { Row } from '$lib/core/books/tables';
  import { live } from '$lib/device/live.svelte';
  import { shortDayWords, timeWords } from '$lib/ui/words/date-words';
  import { quantityWords } from '$lib/ui/words/money-words';
  import { actOfListWords, reasonWords } from '$lib/ui/words/stock-words';
  import { useStall } from '../../../stall.svelte';
  import type { Goods } from '../../goods.svelte';

  interface Props {
    list: Row<'lists'>;
    goods: Goods;
  }
  const { list, goods }: Props = $props();
  const stall = useStall();
  const { books } = stall.db;
  const acts = live(() => {
    const { id } = list;
    return () => books.listActs.where('list').equals(id).sortBy('at');
  }, []);
  const movements = live(() => {
    const { id } = list;
    return () => books.movements.where('list').equals(id).toArray();
  }, []);
  /** What one person packed without anything between it is one knot. */
  const knots = $derived.by(() => {
    const found: Row<'listActs'>[] = [];
    for (const act of acts.value) {
      const last = found.at(-1);
      const isMore = act.does === 'packed' && last?.does === 'packed' && last.by === act.by;
      if (isMore) found[found.length - 1] = { ...act, quantity: last.quantity + act.quantity };
      else found.push(act);
    }
    return found;
  });
  const moved = (act: Row<'listActs'>): readonly Row<'movements'>[] =>
    movements.value.filter(({ id }) => id.startsWith(act.id));
</script>

{#if knots.length > 0}
  <section aria-labelledby="thread">
    <h2 id="thread" class="mb-3">What happened</h2>
    <ol class="thread" data-testid="thread">
      {#each knots as act (act.id)}
        {@const goods_ = moved(act)}
        <li>
          <b class="font-[600]">{actOfListWords(act.does, list.use)}</b>
          {#if act.quantity !== 0}<span class="figure">{quantityWords(act.quantity, '')}</span>{/if}
          <span class="soft block text-sm"
            >{shortDayWords(act.at.slice(0, 10), stall.business.locale)}
            {timeWords(act.at, stall.business.locale, stall.business.timeZone)} · {stall.nameOf(
              act.by,
            )}</span
          >
          {#if act.note !== ''}<span class="block text-sm">{act.note}</span>{/if}
          {#if goods_.length > 0}
            <details class="text-sm">
              <summary class="min-h-8 cursor-pointer"
                >{goods_.length}
                {goods_.length === 1 ? 'item' : 'items'}, {reasonWords(goods_[0]!.reason)}</summary
              >
              <ul>
                {#each goods_ as each (each.id)}
                  <li>
                    {quantityWords(each.quantity, goods.unitOf(each.item))} × {goods.nameOf(
                      each.item,
                    )}{each.amount === 0 ? '' : `, ${stall.money.text(each.amount)}`}
                  </li>
                {/each}
              </ul>
            </details>
          {/if}
        </li>
      {/each}
    </ol>
  </section>
{/if}
