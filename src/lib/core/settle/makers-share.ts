/** What is owed to the people whose goods were sold, and to those who sold (docs/rules.md, "Settling"). */
import type { Row } from '../books/tables';
import { percentOf } from '../money/percent';
import { sum } from '../money/units';

/** A maker's statement in figures, minor units: what their goods brought without tax, what is kept, what is owed. */
export interface MakersShare {
  readonly sold: number;
  readonly commission: number;
  readonly toPay: number;
}

export interface MakersLine {
  readonly maker: string;
  /** The line without tax; negative for goods that came back. Minor units. */
  readonly net: number;
}

/** A line of a maker's goods: thousandths, minor units; below nothing where they came back. */
export interface MakersGoods {
  readonly maker: string;
  readonly item: string | null;
  /** What the line said that it is. */
  readonly name: string;
  readonly quantity: number;
  readonly net: number;
  readonly tax: number;
}

/** A line of a sale, as its maker's. @returns None where it is nobody's. */
export function makersGoods({
  maker,
  item,
  name,
  detail,
  quantity,
  total,
  tax: taxes,
}: Pick<
  Row<'saleLines'>,
  'maker' | 'item' | 'name' | 'detail' | 'quantity' | 'total' | 'tax'
>): MakersGoods[] {
  if (maker === null) return [];
  const tax = sum(Object.values(taxes));
  const said = detail === '' ? name : `${name}, ${detail}`;
  return [{ maker, item, name: said, quantity, net: total - tax, tax }];
}

/** A line of a maker of whom no commission is known. */
export class UnknownMakerError extends RangeError {
  constructor(readonly maker: string) {
    super(`no commission is known for "${maker}"`);
    this.name = 'UnknownMakerError';
  }
}

/**
 * Each line by itself: `n − R(n × commission)`, so that a line that comes back takes back exactly what it gave.
 * @param commission Percent that the vendor keeps, by maker.
 * @returns By maker, those who have lines, in the order of their first.
 * @throws {UnknownMakerError}
 */
export function makersShares(
  lines: readonly MakersLine[],
  commission: Readonly<Record<string, string>>,
): Record<string, MakersShare> {
  const shares = new Map<string, MakersShare>();
  for (const { maker, net } of lines) {
    const percent = Object.hasOwn(commission, maker) ? commission[maker] : undefined;
    if (percent === undefined) throw new UnknownMakerError(maker);
    const before = shares.get(maker) ?? { sold: 0, commission: 0, toPay: 0 };
    const kept = percentOf(net, percent);
    shares.set(maker, {
      sold: before.sold + net,
      commission: before.commission + kept,
      toPay: before.toPay + net - kept,
    });
  }
  return Object.fromEntries(shares);
}

/** A seller's commission at an event: `R(Σ n × rate)`, returns counted off. Minor units. */
export const sellersCommission = (nets: Iterable<number>, rate: string): number => {
  let total = 0;
  for (const net of nets) total += net;
  return percentOf(total, rate);
};
