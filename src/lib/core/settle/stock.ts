/** Goods gone against goods rung up, item by item, and what may explain what does not agree. */
import { lineAmount } from '../slip/line-amount';
import type { SettlingRows } from './rows';

export interface StockSettled {
  readonly item: string;
  /** Thousandths of the unit of measure, all of them. */
  readonly loaded: number;
  readonly back: number;
  /** Broken, given, sampled …, with a reason. */
  readonly gone: number;
  readonly sold: number;
  /** Gone and neither rung up nor given a reason; below nothing where more was rung up than had gone. */
  readonly open: number;
  /** The same at the price it sells for, minor units. */
  readonly retail: number;
  readonly guess: Guess | null;
}

/** What may explain it: no more than a guess. */
export type Guess =
  /** An item of like price is off the other way. */
  | { readonly is: 'taken for'; readonly item: string }
  | { readonly is: 'unlisted'; readonly quantity: number }
  | { readonly is: 'on a tab'; readonly slip: string };

/** Nobody taps one for the other whose prices are further apart than this, in percent. */
const ALIKE = 50;

/** Whether goods have come back, been counted or been written off: before that all of them are still out. */
export const isUnloaded = ({ event, movements, counted }: SettlingRows): boolean =>
  counted.length > 0 || movements.some(({ from }) => from === event.id);

export function settleStock(rows: SettlingRows): readonly StockSettled[] {
  const { event, eventItems, movements, items } = rows;
  const priceOf = new Map(items.map(({ id, price }) => [id, price]));
  const all = new Map<string, { loaded: number; back: number; gone: number; sold: number }>();
  const of = (item: string) => {
    const found = all.get(item) ?? { loaded: 0, back: 0, gone: 0, sold: 0 };
    all.set(item, found);
    return found;
  };
  for (const { item, from, to, quantity } of movements) {
    if (to === event.id) of(item).loaded += quantity;
    if (from !== event.id) continue;
    if (to.startsWith('gone:')) of(item).gone += quantity;
    else of(item).back += quantity;
  }
  // What was never loaded is not counted there: a service, something by the hour.
  for (const { item, quantity } of eventItems) if (all.has(item)) of(item).sold += quantity;
  const found = [...all].map(([item, { loaded, back, gone, sold }]) => {
    const open = loaded - back - gone - sold;
    const retail = Math.sign(open) * lineAmount(priceOf.get(item) ?? 0, Math.abs(open));
    return { item, loaded, back, gone, sold, open, retail: retail === 0 ? 0 : retail, guess: null };
  });
  if (!isUnloaded(rows)) return found.map((each) => ({ ...each, open: 0, retail: 0 }));
  return found.map((each) => ({ ...each, guess: guessOf(each, found, priceOf, rows) }));
}

function guessOf(
  one: StockSettled,
  all: readonly StockSettled[],
  priceOf: ReadonlyMap<string, number>,
  { unlisted, waiting }: SettlingRows,
): Guess | null {
  if (one.open === 0) return null;
  const price = priceOf.get(one.item) ?? 0;
  const isAlike = (other: number): boolean => Math.abs(other - price) * 100 <= price * ALIKE;
  const [other] = all
    .filter(
      (each) =>
        each.item !== one.item &&
        Math.sign(each.open) === -Math.sign(one.open) &&
        isAlike(priceOf.get(each.item) ?? 0),
    )
    // The one that makes up for most of it, then the one nearest in price.
    .sort(
      (a, b) =>
        Math.abs(a.open + one.open) - Math.abs(b.open + one.open) || (a.item < b.item ? -1 : 1),
    );
  if (other !== undefined) return { is: 'taken for', item: other.item };
  if (one.open < 0) return null;
  const tab = waiting.find(({ items }) => items.some(({ item }) => item === one.item));
  if (tab !== undefined) return { is: 'on a tab', slip: tab.slip.id };
  const loose = unlisted.find((each) => each.price === price && each.quantity > 0);
  return loose === undefined ? null : { is: 'unlisted', quantity: loose.quantity };
}
