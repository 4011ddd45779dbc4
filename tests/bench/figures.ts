/** Medians, and what is printed of them. */
export const median = (numbers: readonly number[]): number => {
  const sorted = [...numbers].sort((a, b) => a - b);
  const middle = Math.floor(sorted.length / 2);
  return sorted.length % 2 === 1 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2;
};

export interface Figure {
  readonly what: string;
  /** As measured, with its unit. */
  readonly is: string;
  readonly against: string;
  readonly ratio: number;
  readonly target: { readonly most?: number; readonly least?: number };
}

export const milliseconds = (value: number): string => `${value.toFixed(1)} ms`;

export function print(figures: readonly Figure[]): void {
  const rows = figures.map(({ what, is, against, ratio, target }) => {
    const met = ratio <= (target.most ?? Infinity) && ratio >= (target.least ?? -Infinity);
    const wanted =
      target.most === undefined ? `≥ ${String(target.least)}` : `≤ ${String(target.most)}`;
    return [what, is, against, `${ratio.toFixed(2)} ×`, wanted, met ? 'met' : 'MISSED'];
  });
  const table = [['what', 'is', 'against', 'ratio', 'target', ''], ...rows];
  const widths = table[0]!.map((_, column) => Math.max(...table.map((row) => row[column]!.length)));
  for (const row of table) {
    console.log(
      row
        .map((cell, column) => cell.padEnd(widths[column]!))
        .join('  ')
        .trimEnd(),
    );
  }
}
