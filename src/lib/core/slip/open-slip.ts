/**
 * The slip at the counter while it is still open: what is on it, and each way it can change.
 * Every function gives a new slip and leaves the old one as it was, so that undo is the old one.
 */
import type { Row } from '../books/tables';
import { thousandths } from '../money/units';

/** A line keeps what the item was when it was tapped; a change of set-up does not reach it. */
export interface OpenLine {
  readonly key: string;
  readonly item: string | null;
  readonly name: string;
  readonly detail: string;
  readonly unit: string;
  readonly decimals: number;
  /** Minor units per unit of measure. */
  readonly price: number;
  /** Thousandths of the unit of measure, above zero. */
  readonly quantity: number;
  readonly taxes: readonly string[];
  readonly cost: number | null;
  readonly isStocked: boolean;
}

export interface OpenSlip {
  /** Chosen when the first line is put on; payments name it. */
  readonly id: string;
  readonly lines: readonly OpenLine[];
  /** Key of the line that was touched last. */
  readonly touched: string | null;
}

/** The most one line can hold, in thousandths. */
export const LARGEST_QUANTITY = 9_999_000;
export const MOST_LINES = 500;

/** Why the slip stays as it was. */
export type SlipRefusal =
  | { readonly code: 'slip/quantity-not-positive'; readonly quantity: number }
  | { readonly code: 'slip/quantity-too-large'; readonly quantity: number }
  | { readonly code: 'slip/too-many-decimals'; readonly decimals: number; readonly unit: string }
  | { readonly code: 'slip/no-such-line' }
  | { readonly code: 'slip/full' };

export type SlipOutcome =
  | { readonly ok: true; readonly slip: OpenSlip }
  | { readonly ok: false; readonly refusal: SlipRefusal };

export const emptySlip = (id: string): OpenSlip => ({ id, lines: [], touched: null });

type Item = Pick<
  Row<'items'>,
  'id' | 'name' | 'detail' | 'unit' | 'decimals' | 'price' | 'taxes' | 'cost' | 'isStocked'
>;

/**
 * Puts an item on the slip; the same item at the same price goes on the line it already has.
 * @param quantity Thousandths.
 */
export function putItem(slip: OpenSlip, item: Item, quantity: number, key: string): SlipOutcome {
  const there = slip.lines.find((line) => line.item === item.id && line.price === item.price);
  if (there !== undefined) return setQuantity(slip, there.key, there.quantity + quantity);
  const { id, ...facts } = item;
  return putLine(slip, {
    key,
    item: id,
    name: facts.name,
    detail: facts.detail,
    unit: facts.unit,
    decimals: facts.decimals,
    price: facts.price,
    quantity,
    taxes: facts.taxes,
    cost: facts.cost,
    isStocked: facts.isStocked,
  });
}

/** Puts something that is not listed on the slip: an amount with a word. */
export function putUnlisted(
  slip: OpenSlip,
  line: { readonly name: string; readonly price: number; readonly taxes: readonly string[] },
  key: string,
): SlipOutcome {
  return putLine(slip, {
    ...line,
    key,
    item: null,
    detail: '',
    unit: '',
    decimals: 0,
    quantity: 1000,
    cost: null,
    isStocked: false,
  });
}

/** @param quantity Thousandths; nothing or less is refused, removing is `removeLine`. */
export function setQuantity(slip: OpenSlip, key: string, quantity: number): SlipOutcome {
  const line = slip.lines.find((each) => each.key === key);
  if (line === undefined) return { ok: false, refusal: { code: 'slip/no-such-line' } };
  const refusal = quantityRefusal(quantity, line);
  if (refusal !== null) return { ok: false, refusal };
  const lines = slip.lines.map((each) => (each.key === key ? { ...each, quantity } : each));
  return { ok: true, slip: { ...slip, lines, touched: key } };
}

export function removeLine(slip: OpenSlip, key: string): SlipOutcome {
  const lines = slip.lines.filter((line) => line.key !== key);
  if (lines.length === slip.lines.length)
    return { ok: false, refusal: { code: 'slip/no-such-line' } };
  return { ok: true, slip: { ...slip, lines, touched: null } };
}

/** How much of each item is on the slip, in thousandths. */
export function quantitiesOn(slip: OpenSlip): Map<string, number> {
  const on = new Map<string, number>();
  for (const { item, quantity } of slip.lines) {
    if (item !== null) on.set(item, (on.get(item) ?? 0) + quantity);
  }
  return on;
}

/** How many things are on the slip: what is weighed or timed is one thing a line. */
export const thingsOn = (slip: OpenSlip): number =>
  slip.lines.reduce((all, { unit, quantity }) => all + (unit === '' ? quantity / 1000 : 1), 0);

function putLine(slip: OpenSlip, line: OpenLine): SlipOutcome {
  if (slip.lines.length >= MOST_LINES) return { ok: false, refusal: { code: 'slip/full' } };
  const refusal = quantityRefusal(line.quantity, line);
  if (refusal !== null) return { ok: false, refusal };
  return { ok: true, slip: { ...slip, lines: [...slip.lines, line], touched: line.key } };
}

/** Why a line cannot hold a quantity, or null when it can. */
export function quantityRefusal(
  quantity: number,
  { decimals, unit }: Pick<OpenLine, 'decimals' | 'unit'>,
): SlipRefusal | null {
  if (thousandths(quantity) <= 0) return { code: 'slip/quantity-not-positive', quantity };
  if (quantity > LARGEST_QUANTITY) return { code: 'slip/quantity-too-large', quantity };
  if (quantity % 10 ** (3 - decimals) !== 0)
    return { code: 'slip/too-many-decimals', decimals, unit };
  return null;
}
