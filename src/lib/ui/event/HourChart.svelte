<script lang="ts">
  import type { Row } from '../../core/books/tables';
  import type { MoneyWords } from '../words/money-words';
  import BarChart from './BarChart.svelte';

  interface Props {
    hours: readonly Row<'eventHours'>[];
    money: MoneyWords;
  }
  const { hours, money }: Props = $props();

  /** One bar an hour, quiet hours in between too; several days stand one after another. */
  const bars = $derived.by(() => {
    const sorted = [...hours].sort((a, b) =>
      a.day === b.day ? a.hour - b.hour : a.day < b.day ? -1 : 1,
    );
    const first = Math.min(...sorted.map(({ hour }) => hour));
    const last = Math.max(...sorted.map(({ hour }) => hour));
    const days = [...new Set(sorted.map(({ day }) => day))];
    return days.flatMap((day) =>
      Array.from({ length: last - first + 1 }, (_, i) => {
        const found = sorted.find((row) => row.day === day && row.hour === first + i);
        return {
          key: `${day} ${String(first + i)}`,
          hour: first + i,
          sales: found?.sales ?? 0,
          takings: found?.takings ?? 0,
        };
      }),
    );
  });
</script>

{#if bars.length === 0}
  <p class="soft min-h-44">Nothing has been sold yet. Takings show here hour by hour.</p>
{:else}
  <BarChart
    bars={bars.map(({ hour, takings }) => ({ label: String(hour), amount: takings }))}
    {money}
    label="Takings by the hour, as in the table below"
  />
  <details class="mt-2">
    <summary class="min-h-8 cursor-pointer font-[560]">The figures</summary>
    <table class="rows">
      <thead
        ><tr><th scope="col">Hour</th><th scope="col">Sales</th><th scope="col">Takings</th></tr
        ></thead
      >
      <tbody>
        {#each bars as { key, hour, sales, takings } (key)}
          <tr
            ><td>{hour}:00</td><td class="figure">{sales}</td><td class="figure"
              >{money.figure(takings)}</td
            ></tr
          >
        {/each}
      </tbody>
    </table>
  </details>
{/if}
