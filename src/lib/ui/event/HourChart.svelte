<script lang="ts">
  import type { Row } from '../../core/books/tables';
  import type { MoneyWords } from '../words/money-words';

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

  let canvas = $state<HTMLCanvasElement>();

  $effect(() => {
    const [element, data] = [canvas, bars];
    if (element === undefined || data.length === 0) return;
    let chart: { destroy(): void } | undefined;
    let isGone = false;
    void import('./hour-chart').then(({ drawHours }) => {
      if (!isGone) chart = drawHours(element, data, money);
    });
    return () => {
      isGone = true;
      chart?.destroy();
    };
  });
</script>

{#if bars.length === 0}
  <p class="soft">Nothing has been sold yet. Takings show here hour by hour.</p>
{:else}
  <div class="relative h-44" role="img" aria-label="Takings by the hour, as in the table below">
    <canvas bind:this={canvas} class="max-w-full" aria-hidden="true"></canvas>
  </div>
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
