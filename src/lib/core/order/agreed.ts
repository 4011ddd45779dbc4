/** What was agreed of an order's lines, and what of it is still to be handed over. Minor units and thousandths. */
import type { Row } from '../books/tables';
import type { BodyOf } from '../daybook/kinds';
import { fraction, roundToMinor } from '../money/fraction';
import { sum } from '../money/units';

export type OrderLine = BodyOf<'order.set'>['lines'][number];

/** The line of an order that a line of a slip hands over. */
export interface Ordered {
  readonly order: string;
  readonly line: string;
  /** What was agreed to be off, of how much of it, and how much was handed over before. */
  readonly off: number;
  readonly of: number;
  readonly before: number;
}

/** A share of an amount: `R(amount × quantity / of)`. */
export const shareOf = (amount: number, quantity: number, of: number): number =>
  of === 0 ? 0 : roundToMinor(fraction(BigInt(amount) * BigInt(quantity), of));

/** What is off the next so many of a line, so that all of it together comes to what was agreed. */
export const offNext = (
  { off, of, before }: Pick<Ordered, 'off' | 'of' | 'before'>,
  quantity: number,
): number => shareOf(off, before + quantity, of) - shareOf(off, before, of);

/** How much of each line was handed over; thousandths, by the line's id. */
export type HandedOver = ReadonlyMap<string, number>;

export const handedOf = (sums: readonly Pick<Row<'orderSums'>, 'line' | 'handed'>[]): HandedOver =>
  new Map(sums.map(({ line, handed }) => [line, handed]));

/** What is still to be handed over; nothing where more was than had been ordered. */
export const restOf = ({ id, quantity }: OrderLine, handed: HandedOver): number =>
  Math.max(0, quantity - (handed.get(id) ?? 0));

/** Whether what lines of a slip hand over of one order is still left of it. */
export function isStillToHand(
  lines: readonly { readonly quantity: number; readonly ordered?: Ordered | undefined }[],
  order: { readonly stage: string; readonly lines: readonly OrderLine[] },
  handed: HandedOver,
): boolean {
  const wanted = new Map<string, number>();
  for (const { quantity, ordered } of lines)
    if (ordered !== undefined) wanted.set(ordered.line, (wanted.get(ordered.line) ?? 0) + quantity);
  return (
    wanted.size === 0 ||
    (order.stage !== 'off' &&
      order.lines.every((line) => (wanted.get(line.id) ?? 0) <= restOf(line, handed)))
  );
}

/** What all of it comes to, with tax, on the cash side. */
export const totalOf = (lines: readonly OrderLine[]): number =>
  sum(lines.map(({ total }) => total));

/** What of that is still to be handed over comes to. */
export const restValueOf = (lines: readonly OrderLine[], handed: HandedOver): number =>
  sum(lines.map((line) => shareOf(line.total, restOf(line, handed), line.quantity)));
