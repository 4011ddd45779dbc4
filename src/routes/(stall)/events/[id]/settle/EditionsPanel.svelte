<script lang="ts">
  /** This edition beside those before it: takings, sales, what one sale brought, and what was left of it. */
  import type { EventResult } from '$lib/core/settle/result';
  import { averageOf } from '$lib/core/settle/editions';
  import BarChart from '$lib/ui/event/BarChart.svelte';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { useStall } from '../../../stall.svelte';
  import { AskedEditions } from './editions.svelte';

  interface Props {
    event: string;
    /** Of this one. */
    day: string;
    result: EventResult;
  }
  const { event, day, result }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  const { takings, sales, before } = $derived(result);
  const asked = new AskedEditions(stall, () => event);
  const all = $derived([
    ...before.map((each) => ({ ...each, isThis: false, result: asked.now.get(each.id) })).reverse(),
    { id: 'this', day, takings, sales, isThis: true, result },
  ]);
  const [last] = $derived(before);
  const lastLeft = $derived(last === undefined ? undefined : asked.now.get(last.id)?.left);
</script>

{#if last !== undefined}
  <section class="sheet grid gap-3" aria-labelledby="editions">
    <h2 id="editions">Beside the editions before</h2>
    <p>
      {money.text(Math.abs(takings - last.takings))}
      {takings < last.takings ? 'less' : 'more'} than on {shortDayWords(
        last.day,
        stall.business.locale,
      )}{#if lastLeft !== undefined}, and {money.text(Math.abs(result.left - lastLeft))}
        {result.left < lastLeft ? 'less' : 'more'} is left of it{/if}.
    </p>
    {#if asked.says !== ''}<p class="soft" role="status">{asked.says}</p>{/if}
    <BarChart
      bars={all.map((each) => ({
        label: shortDayWords(each.day, stall.business.locale),
        amount: each.takings,
        isThis: each.isThis,
      }))}
      {money}
      label="Takings of this edition and those before it, as in the table below"
    />
    <table class="rows" data-testid="editions">
      <thead
        ><tr
          ><th scope="col">Edition</th><th scope="col">Takings</th><th
            scope="col"
            class="hidden sm:table-cell">Sales</th
          ><th scope="col" class="hidden sm:table-cell">A sale</th><th scope="col">Left</th><th
            scope="col">An hour</th
          ></tr
        ></thead
      >
      <tbody>
        {#each all.toReversed() as each (each.id)}
          {@const average = averageOf(each)}
          <tr>
            <td class={each.isThis ? 'font-[650]' : ''}
              >{shortDayWords(each.day, stall.business.locale)}</td
            >
            <td class="figure">{money.figure(each.takings)}</td>
            <td class="figure hidden sm:table-cell">{each.sales}</td>
            <td class="figure hidden sm:table-cell"
              >{average === null ? '' : money.figure(average)}</td
            >
            <td class="figure"
              >{each.result === undefined ? '…' : money.figure(each.result.left)}</td
            >
            <td class="figure"
              >{typeof each.result?.perHour === 'number'
                ? money.figure(each.result.perHour)
                : ''}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  </section>
{/if}
