/** What a tap or a finished entry does at the counter: goods on the slip, a question first, a new item. */
import type { Row } from '../books/tables';
import type { ReceiptCode } from '../receipt/receipt-code';
import type { OpenLine, PutWith } from '../slip/open-slip';
import type { Understood } from './understand';

type Item = Row<'items'>;

export type Does =
  | { readonly does: 'put'; readonly item: Item; readonly quantity: number; readonly said: PutWith }
  /** Which one, what with, what price or how long must be said first. */
  | { readonly does: 'ask'; readonly item: Item; readonly quantity: number }
  /** What is weighed needs its quantity, typed before this. */
  | { readonly does: 'await quantity'; readonly name: string }
  | { readonly does: 'put unlisted'; readonly line: Unlisted }
  | { readonly does: 'make'; readonly barcode: string }
  /** Whoever has this card buys. */
  | { readonly does: 'put customer'; readonly code: string }
  /** Opens the sale of a receipt. */
  | { readonly does: 'open receipt'; readonly code: ReceiptCode };
export type Unlisted = Pick<OpenLine, 'name' | 'price' | 'taxes' | 'maker' | 'tag'>;

const asksFirst = ({ choices, extras, isOpenPrice, isTimed }: Item): boolean =>
  choices.length > 0 || extras.length > 0 || isOpenPrice || isTimed;

/** A tap on a tag: one of it, where one can be meant. */
export function tapDoes(item: Item): Does {
  if (asksFirst(item)) return { does: 'ask', item, quantity: 1000 };
  if (item.unit === '' || item.decimals === 0)
    return { does: 'put', item, quantity: 1000, said: {} };
  return { does: 'await quantity', name: item.code === '' ? item.name : item.code };
}

/**
 * What was typed or scanned, once it is finished. What is not listed carries the first tax of the set-up, which
 * is the one most goods carry.
 * @param chosen Another of the goods that fit, if somebody went to it.
 * @returns Null where there is nothing to do.
 */
export function entryDoes(
  meant: Understood,
  chosen: Item | null,
  taxes: readonly Pick<Row<'taxes'>, 'id'>[],
): Does | null {
  const carries = taxes.slice(0, 1).map(({ id }) => id);
  switch (meant.means) {
    case 'item': {
      const item = chosen ?? meant.item;
      const { quantity, price } = meant;
      // Hours that were typed need no question; neither does a price that a label says.
      const isSaid = price !== undefined || (item.isTimed && item.extras.length === 0);
      if (asksFirst(item) && !isSaid) return { does: 'ask', item, quantity };
      return { does: 'put', item, quantity, said: price === undefined ? {} : { price } };
    }
    case 'unlisted': {
      const name = meant.word === '' ? 'Unlisted' : meant.word;
      return { does: 'put unlisted', line: { name, price: meant.amount, taxes: carries } };
    }
    case 'tag': {
      const { maker, word, tag, amount } = meant;
      const name = word === '' ? maker.name : `${word}, ${maker.name}`;
      const line = { name, price: amount, taxes: carries, maker: maker.id };
      return { does: 'put unlisted', line: tag === '' ? line : { ...line, tag } };
    }
    case 'customer':
      return { does: 'put customer', code: meant.code };
    case 'receipt':
      return { does: 'open receipt', code: meant.code };
    case 'unknown code':
      return { does: 'make', barcode: meant.barcode };
    case 'nothing':
    case 'refused':
      return null;
  }
}
