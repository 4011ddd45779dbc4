/** Amounts side by side, drawn by Chart.js; loaded only where it is shown. */
import { BarController, BarElement, CategoryScale, Chart, LinearScale, Tooltip } from 'chart.js';
import type { MoneyWords } from '../words/money-words';

Chart.register(BarController, BarElement, CategoryScale, LinearScale, Tooltip);

export interface Bar {
  readonly label: string;
  /** Minor units. */
  readonly amount: number;
  /** The one that is looked at. */
  readonly isThis?: boolean;
}

export function drawBars(
  canvas: HTMLCanvasElement,
  bars: readonly Bar[],
  money: MoneyWords,
): Chart {
  const style = getComputedStyle(canvas);
  const colour = (name: string): string => style.getPropertyValue(name).trim();
  return new Chart(canvas, {
    type: 'bar',
    data: {
      labels: bars.map(({ label }) => label),
      datasets: [
        {
          data: bars.map(({ amount }) => amount),
          backgroundColor: bars.map(({ isThis = true }) =>
            colour(isThis ? '--color-primary' : '--soft'),
          ),
          borderRadius: 3,
          maxBarThickness: 72,
        },
      ],
    },
    options: {
      animation: false,
      maintainAspectRatio: false,
      plugins: { tooltip: { callbacks: { label: ({ raw }) => money.text(Number(raw)) } } },
      scales: {
        x: { grid: { display: false }, ticks: { color: colour('--soft') } },
        y: {
          beginAtZero: true,
          grid: { color: colour('--color-base-300') },
          ticks: {
            color: colour('--soft'),
            maxTicksLimit: 5,
            callback: (value) => money.figure(Number(value)),
          },
        },
      },
    },
  });
}
