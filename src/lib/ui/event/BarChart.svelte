<script lang="ts">
  /** Amounts side by side; whoever does not see them has the table that goes with it. */
  import type { MoneyWords } from '../words/money-words';
  import type { Bar } from './draw-bars';

  interface Props {
    bars: readonly Bar[];
    money: MoneyWords;
    /** What it shows, and where that is as a table. */
    label: string;
  }
  const { bars, money, label }: Props = $props();
  let canvas = $state<HTMLCanvasElement>();

  $effect(() => {
    const [element, data, words] = [canvas, bars, money];
    if (element === undefined || data.length === 0) return;
    let chart: { destroy(): void } | undefined;
    let isGone = false;
    void import('./draw-bars').then(({ drawBars }) => {
      if (!isGone) chart = drawBars(element, data, words);
    });
    return () => {
      isGone = true;
      chart?.destroy();
    };
  });
</script>

<div class="relative h-44" role="img" aria-label={label}>
  <canvas bind:this={canvas} class="max-w-full" aria-hidden="true"></canvas>
</div>
