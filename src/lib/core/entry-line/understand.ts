/**
 * What somebody meant by what they typed at the counter: a name, a code, a barcode, a quantity
 * first, or a bare amount with a word.
 */
import type { Row } from '../books/tables';
import { readAmount, type AmountRefusal } from '../money/amount-text';
import { currencyOf } from '../money/currency';
import { quantityOf, type Thousandths } from '../money/units';
import { quantityRefusal, type SlipRefusal } from '../slip/open-slip';
import { findItems, type Goods } from './find-items';

type Item = Row<'items'>;

export type Understood =
  | { readonly means: 'nothing' }
  | {
      readonly means: 'item';
      readonly item: Item;
      /** Thousandths. */
      readonly quantity: number;
      /** The item and others that fit as well, best first. */
      readonly fitting: readonly Item[];
    }
  | { readonly means: 'unlisted'; readonly amount: number; readonly word: string }
  | { readonly means: 'refused'; readonly refusal: EntryRefusal };

export type EntryRefusal =
  | { readonly code: 'entry/no-such-thing'; readonly typed: string }
  | { readonly code: 'entry/negative'; readonly typed: string }
  | AmountRefusal
  | SlipRefusal;

/**
 * Reads the entry line.
 *
 * "lav" is the item whose name fits best; "3 lav" or "3 x lav" three of it; "0.385 crocus" by
 * weight; a code or barcode in full is that item; "4.50" or "4.50 ribbon" something not listed.
 * A whole number alone is an amount, unless it is the code of an item.
 */
export function understand(typed: string, goods: Goods, currency: string): Understood {
  const text = typed.trim();
  if (text === '') return { means: 'nothing' };
  const exact = goods.byCode.get(text.toLowerCase());
  if (exact !== undefined) return { means: 'item', item: exact, quantity: 1000, fitting: [exact] };
  if (/^[-−]\s*[\d.,]/.test(text)) {
    return { means: 'refused', refusal: { code: 'entry/negative', typed: text } };
  }
  const quantityFirst = /^(\d+(?:[.,]\d+)?)\s*(?:[x×*]\s*|\s)(.*\S)$/iu.exec(text);
  if (quantityFirst !== null) {
    const [, number = '', name = ''] = quantityFirst;
    const found = named(name, goods);
    const wants = quantityIn(number);
    if (found.length > 0 && wants !== null) return someOf(found, wants, number, name, currency);
    return unlisted(number, name, currency);
  }
  const amountFirst = /^\p{Sc}?\s*([\d.,]+)\s*(.*)$/u.exec(text);
  if (amountFirst !== null && /\d/.test(amountFirst[1] ?? '')) {
    const [, number = '', word = ''] = amountFirst;
    const startsWithIt = word === '' ? [] : named(text, goods);
    if (startsWithIt.length > 0) return someOf(startsWithIt, 1000, '1', text, currency);
    return unlisted(number, word, currency);
  }
  const found = named(text, goods);
  if (found.length > 0) return someOf(found, 1000, '1', text, currency);
  return { means: 'refused', refusal: { code: 'entry/no-such-thing', typed: text } };
}

function someOf(
  fitting: readonly Item[],
  quantity: number,
  number: string,
  name: string,
  currency: string,
): Understood {
  const item = fitting[0]!;
  const refusal = quantityRefusal(quantity, item);
  if (refusal === null) return { means: 'item', item, quantity, fitting };
  // "4.50 ribbon": a price, even though there are ribbons that are sold by the piece.
  const looksLikeMoney = new RegExp(`^\\d+[.,]\\d{${String(currencyOf(currency).decimals)}}$`);
  if (refusal.code === 'slip/too-many-decimals' && looksLikeMoney.test(number)) {
    return unlisted(number, name, currency);
  }
  return { means: 'refused', refusal };
}

function unlisted(number: string, word: string, currency: string): Understood {
  const read = readAmount(number, currency);
  if (!read.ok) return { means: 'refused', refusal: read.refusal };
  if (read.amount === 0) return { means: 'refused', refusal: { code: 'amount/empty' } };
  return { means: 'unlisted', amount: read.amount, word: word.trim() };
}

function named(name: string, goods: Goods): readonly Item[] {
  const exact = goods.byCode.get(name.toLowerCase());
  return exact === undefined ? findItems(name, goods) : [exact];
}

function quantityIn(number: string): Thousandths | null {
  try {
    return quantityOf(number.replace(',', '.'));
  } catch {
    return null;
  }
}
