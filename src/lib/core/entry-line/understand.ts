/**
 * What somebody meant by what they typed at the counter: a name, a code, a barcode, a quantity
 * first, or a bare amount with a word.
 */
import type { Row } from '../books/tables';
import { readAmount, type AmountRefusal } from '../money/amount-text';
import { currencyOf } from '../money/currency';
import { readQuantity } from '../money/typed';
import { hasRightCheckDigit, looksLikeGtin, readLabel } from '../goods/gtin';
import { hoursOf } from '../goods/hours';
import { lineAmount } from '../slip/line-amount';
import { quantityRefusal, type SlipRefusal } from '../slip/open-slip';
import { receiptCodeIn, type ReceiptCode } from '../receipt/receipt-code';
import { findItems, type Goods } from './find-items';

type Item = Row<'items'>;
type Maker = Row<'makers'>;

export type Understood =
  | { readonly means: 'nothing' }
  | {
      readonly means: 'item';
      readonly item: Item;
      /** Thousandths. */
      readonly quantity: number;
      /** The price that a label of the shop carries, per unit of measure. */
      readonly price?: number;
      /** The item and others that fit as well, best first. */
      readonly fitting: readonly Item[];
    }
  | { readonly means: 'unlisted'; readonly amount: number; readonly word: string }
  /** A hang tag: whose goods, of which class, the tag's own number, and the price. */
  | {
      readonly means: 'tag';
      readonly maker: Maker;
      readonly word: string;
      readonly tag: string;
      readonly amount: number;
    }
  /** A number of the GS1 system that is in order and that nothing here has. */
  | { readonly means: 'unknown code'; readonly barcode: string }
  /** The code of a customer's card, mostly scanned. */
  | { readonly means: 'customer'; readonly code: string }
  /** The code of a receipt, mostly scanned. */
  | { readonly means: 'receipt'; readonly code: ReceiptCode }
  | { readonly means: 'refused'; readonly refusal: EntryRefusal };

export type EntryRefusal =
  | { readonly code: 'entry/no-such-thing'; readonly typed: string }
  | { readonly code: 'entry/negative'; readonly typed: string }
  | { readonly code: 'entry/check-digit'; readonly typed: string }
  | { readonly code: 'entry/no-such-maker'; readonly number: number }
  | { readonly code: 'entry/tag-wrong' }
  | AmountRefusal
  | SlipRefusal;

const NO_CARDS: ReadonlySet<string> = new Set();

/**
 * Reads the entry line.
 *
 * "lav" is the item whose name fits best; "3 lav" or "3 x lav" three of it; "0.385 crocus" by
 * weight; a code or barcode in full is that item; "4.50" or "4.50 ribbon" something not listed.
 * A whole number alone is an amount, unless it is the code of an item. "1:20 sharpening" is a service
 * by the hour; a label of the shop says its weight or price; "#12 pots 345 18.00" is a hang tag of
 * maker 12. The code of a customer's card, where no goods have it, is that customer. A GTIN that nothing has is said to be unknown, so that the item can be added.
 */
export function understand(
  typed: string,
  goods: Goods,
  currency: string,
  makers: readonly Maker[] = [],
  /** Codes of customers' cards, in small letters. */
  cards: ReadonlySet<string> = NO_CARDS,
): Understood {
  const text = typed.trim();
  if (text === '') return { means: 'nothing' };
  const exact = goods.byCode.get(text.toLowerCase());
  if (exact !== undefined) return { means: 'item', item: exact, quantity: 1000, fitting: [exact] };
  if (cards.has(text.toLowerCase())) return { means: 'customer', code: text };
  const receipt = receiptCodeIn(text);
  if (receipt !== null) return { means: 'receipt', code: receipt };
  if (text.startsWith('#')) return hangTag(text, currency, makers);
  const labelled = inStore(text, goods);
  if (labelled !== null) return labelled;
  if (looksLikeGtin(text)) {
    return hasRightCheckDigit(text)
      ? { means: 'unknown code', barcode: text }
      : { means: 'refused', refusal: { code: 'entry/check-digit', typed: text } };
  }
  const timed = timedService(text, goods);
  if (timed !== null) return timed;
  if (/^[-−]\s*[\d.,]/.test(text)) {
    return { means: 'refused', refusal: { code: 'entry/negative', typed: text } };
  }
  const quantityFirst = /^(\d+(?:[.,]\d+)?)\s*(?:[x×*]\s*|\s)(.*\S)$/iu.exec(text);
  if (quantityFirst !== null) {
    const [, number = '', name = ''] = quantityFirst;
    const found = named(name, goods);
    const wants = readQuantity(number);
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

/** "#12 pots 345 18.00": maker, class of goods, the tag's number if it has one, price. */
function hangTag(text: string, currency: string, makers: readonly Maker[]): Understood {
  const match = /^#\s*(\d{1,5})\s+(.*?)\s*(?:\s(\d[\w-]*)\s+)?(\p{Sc}?[\d.,]+)$/u.exec(text);
  if (match === null) return { means: 'refused', refusal: { code: 'entry/tag-wrong' } };
  const [, number = '', word = '', tag = '', price = ''] = match;
  const maker = makers.find((each) => each.isActive && each.number === Number(number));
  if (maker === undefined)
    return {
      means: 'refused',
      refusal: { code: 'entry/no-such-maker', number: Number(number) },
    };
  const read = readAmount(price, currency);
  if (!read.ok) return { means: 'refused', refusal: read.refusal };
  return { means: 'tag', maker, word: word.trim(), tag, amount: read.amount };
}

/** A label printed in the shop: the item by its five figures, with its weight or its price. */
function inStore(text: string, goods: Goods): Understood | null {
  const label = readLabel(text);
  if (label === null) return null;
  const item = goods.byCode.get(label.code) ?? goods.byCode.get(String(Number(label.code)));
  if (item === undefined) return null;
  const fitting = [item];
  if (label.carries === 'measure') return { means: 'item', item, quantity: label.value, fitting };
  if (item.unit === '' || item.price === 0)
    return { means: 'item', item, quantity: 1000, price: label.value, fitting };
  return { means: 'item', item, fitting, ...pricedAs(label.value, item.price) };
}

/**
 * The quantity that a labelled price stands for, with the price per unit at which it comes to exactly
 * that: labels round, and the label is what the customer was promised.
 */
function pricedAs(amount: number, price: number): { quantity: number; price: number } {
  const about = Math.max(1, Math.round((amount * 1000) / price));
  for (const quantity of [about, about - 1, about + 1].filter((each) => each > 0)) {
    const unit = Math.round((amount * 1000) / quantity);
    for (const each of [price, unit, unit - 1, unit + 1])
      if (lineAmount(each, quantity) === amount) return { quantity, price: each };
  }
  return { quantity: 1000, price: amount };
}

/** "1:20 sharpening" or "45 min advice", of something that is charged by the hour. */
function timedService(text: string, goods: Goods): Understood | null {
  const match =
    /^(\d{1,3}\s*(?::|h)\s*\d{1,2}(?:\s*min)?|\d{1,3}\s*h|\d{1,4}\s*min)\s+(.*\S)$/iu.exec(text);
  const quantity = hoursOf(match?.[1] ?? '');
  if (match === null || quantity === null || quantity === 0) return null;
  const fitting = named(match[2] ?? '', goods).filter(({ isTimed }) => isTimed);
  const [item] = fitting;
  return item === undefined ? null : { means: 'item', item, quantity, fitting };
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
