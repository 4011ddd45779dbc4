/** What somebody typed or scanned to name goods: part of a name or a code, how much of it standing first. */
import type { Row } from '../books/tables';
import { findItems, type Goods } from '../entry-line/find-items';
import { readQuantity } from '../money/typed';

export interface TypedGoods {
  /** Those that it can mean; one is what Enter takes. */
  readonly found: readonly Row<'items'>[];
  /** Thousandths; null where none was typed. */
  readonly quantity: number | null;
  /** A code of goods, and nothing else: as a scanner types it. */
  readonly isCode: boolean;
}

/** @example typedGoods('3 fern', goods) // 3 of whatever is called fern */
export function typedGoods(typed: string, goods: Goods): TypedGoods {
  const text = typed.trim();
  const exact = goods.byCode.get(text.toLowerCase());
  if (exact !== undefined) return { found: [exact], quantity: null, isCode: true };
  const [, much, rest] = /^(\d+(?:[.,]\d+)?)\s*[x×*]?\s+(.+)$/u.exec(text) ?? [];
  const quantity = much === undefined ? null : readQuantity(much);
  const name = quantity === null ? text : (rest ?? '');
  const coded = goods.byCode.get(name.toLowerCase());
  return {
    found: (coded === undefined ? findItems(name, goods) : [coded]).filter(
      ({ isStocked, choices }) => isStocked && choices.length === 0,
    ),
    quantity,
    isCode: false,
  };
}
