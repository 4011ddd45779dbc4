<script lang="ts">
  import { isKnown } from '$lib/core/event/todays-event';
  import { countNumber, isEnded } from '$lib/core/stock/count';
  import { live } from '$lib/device/live.svelte';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { useStall } from '../../stall.svelte';
  import { Goods } from '../goods.svelte';

  const stall = useStall();
  const { books } = stall.db;
  const goods = new Goods(stall);
  const counts = live(
    () => async () =>
      (await books.counts.toArray()).filter(isKnown).toSorted((a, b) => (a.at < b.at ? 1 : -1)),
    [],
  );
</script>

<div class="page page-text gap-5">
  <div class="flex flex-wrap items-center justify-between gap-3">
    <h1>Counts of stock</h1>
    <a class="btn btn-main px-6" href="/stock/counts/new">Begin a count</a>
  </div>
  <ul class="grid gap-3" data-testid="counts">
    {#each counts.value as count (count.id)}
      <li>
        <a
          class="sheet grid grid-cols-[minmax(0,1fr)_auto] gap-x-4"
          href="/stock/counts/{count.id}"
        >
          <b class="text-lg font-[650]"
            >{count.name} <span class="soft">{countNumber(count)}</span></b
          >
          <span class={isEnded(count) ? 'text-secondary' : 'text-error font-[600]'}
            >{count.how === 'off' ? 'called off' : isEnded(count) ? 'over' : 'going on'}</span
          >
          <span class="soft col-span-full"
            >{goods.placeName(count.place)} · {shortDayWords(
              count.at.slice(0, 10),
              stall.business.locale,
            )} · {stall.nameOf(count.by)}</span
          >
        </a>
      </li>
    {:else}
      {#if counts.isRead}
        <li class="sheet soft">
          Nothing has been counted yet. A count can go on while you sell: each figure is compared
          with what should have been there at that moment.
        </li>
      {/if}
    {/each}
  </ul>
</div>
