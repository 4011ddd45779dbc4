/** Numbers of invoices and credit notes: of one series, one after another, without a gap. */
import type { BodyOf } from '../daybook/kinds';

export type Invoicing = BodyOf<'business.invoicing'>;
type Numbering = Pick<Invoicing, 'series' | 'isByYear' | 'digits'>;

/** The series that a document of this day is in. @param issued ISO date. */
export const seriesOf = ({ series, isByYear }: Numbering, issued: string): string =>
  isByYear ? `${series}${issued.slice(0, 4)}-` : series;

/** The number as people read it. @example numberText({ series: 'R', isByYear: true, digits: 4 }, '2026-11-28', 7) // => 'R2026-0007' */
export const numberText = (numbering: Numbering, issued: string, n: number): string =>
  `${seriesOf(numbering, issued)}${String(n).padStart(numbering.digits, '0')}`;

/** Numbers below the highest of each series that no document has: none, unless the server was set back. */
export function gapsIn(
  numbers: readonly { readonly series: string; readonly n: number }[],
): readonly { readonly series: string; readonly n: number }[] {
  const bySeries = new Map<string, number[]>();
  for (const { series, n } of numbers) {
    const all = bySeries.get(series);
    if (all === undefined) bySeries.set(series, [n]);
    else all.push(n);
  }
  return [...bySeries].flatMap(([series, given]) => {
    const there = new Set(given);
    const [first, last] = [Math.min(...given), Math.max(...given)];
    return Array.from({ length: last - first }, (_, at) => first + at)
      .filter((n) => !there.has(n))
      .map((n) => ({ series, n }));
  });
}
