<script lang="ts">
  /** This edition beside those before it: takings, sales, and what one sale brought. */
  import type { EventResult } from '$lib/core/settle/result';
  import { averageOf } from '$lib/core/settle/editions';
  import BarChart from '$lib/ui/event/BarChart.svelte';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { useStall } from '../../../stall.svelte';

  interface Props {
    /** This one. */
    day: string;
    takings: number;
    sales: number;
    before: EventResult['before'];
  }
  const { day, takings, sales, before }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  const all = $derived([
    ...before.map((each) => ({ ...each, isThis: false })).reverse(),
    { id: 'this', day, takings, sales, isThis: true },
  ]);
  const [last] = $derived(before);
</script>

{#if last !== undefined}
  <section class="sheet grid gap-3" aria-labelledby="editions">
    <h2 id="editions">Beside the editions before</h2>
    <p>
      {money.text(Math.abs(takings - last.takings))}
      {takings < last.takings ? 'less' : 'more'} than on {shortDayWords(
        last.day,
        stall.business.locale,
      )}.
    </p>
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
          ><th scope="col">Edition</th><th scope="col">Takings</th><th scope="col">Sales</th><th
            scope="col">A sale</th
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
            <td class="figure">{each.sales}</td>
            <td class="figure">{average === null ? '' : money.figure(average)}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </section>
{/if}
