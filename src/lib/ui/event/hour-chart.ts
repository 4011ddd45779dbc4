/** The shape of a day, drawn by Chart.js; loaded only where it is shown. */
import { BarController, BarElement, CategoryScale, Chart, LinearScale, Tooltip } from 'chart.js';
import type { MoneyWords } from '../words/money-words';

Chart.register(BarController, BarElement, CategoryScale, LinearScale, Tooltip);

export interface HourBar {
  readonly hour: number;
  readonly takings: number;
}

export function drawHours(
  canvas: HTMLCanvasElement,
  bars: readonly HourBar[],
  money: MoneyWords,
): Chart {
  const style = getComputedStyle(canvas);
  const colour = (name: string): string => style.getPropertyValue(name).trim();
  return new Chart(canvas, {
    type: 'bar',
    data: {
      labels: bars.map(({ hour }) => String(hour)),
      datasets: [
        {
          data: bars.map(({ takings }) => takings),
          backgroundColor: colour('--color-primary'),
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
