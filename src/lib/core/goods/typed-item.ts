/** An item as its form holds it: what the command reads back. */
import type { Row } from '../books/tables';
import { typedText } from '../money/amount-text';
import { costText } from '../money/cost-text';
import { quantityText } from '../money/units';
import { categoryName } from './categories';
import { PLAIN_ITEM } from './plain-item';
import type { TypedItem, TypedVariant } from './set-item';
import { variantsOf } from './variants';

type Item = Row<'items'>;

/** A new item, with the taxes that most goods carry. */
export const typedToBegin = (taxes: readonly string[], barcode = ''): TypedItem => ({
  ...PLAIN_ITEM,
  name: '',
  barcodes: barcode,
  price: '',
  otherPrice: '',
  taxes,
  cost: '',
  low: '3',
  reorder: '',
  choices: [],
  variants: [],
  extras: [],
});

/** What stands in the form of an item that is there. */
export function typedFrom(
  item: Item,
  items: readonly Item[],
  categories: readonly Row<'categories'>[],
  currency: string,
): TypedItem {
  const amount = (minor: number): string => typedText(minor, currency);
  return {
    ...item,
    category: categoryName(item.category, categories),
    barcodes: item.barcodes.join(' '),
    price: item.isOpenPrice && item.price === 0 ? '' : amount(item.price),
    otherPrice: item.otherPrice === null ? '' : amount(item.otherPrice),
    cost: costText(item.cost, currency),
    low: quantityText(item.low),
    reorder: item.reorder
      .filter(({ place }) => place === 'base')
      .map(({ level }) => quantityText(level))
      .join(''),
    choices: item.choices.map(({ name, values }) => ({ name, values: values.join(', ') })),
    variants: variantsOf(item, items).map((each): TypedVariant => ({
      values: each.values,
      code: each.code,
      barcodes: each.barcodes.join(' '),
      price: amount(each.price),
      isSold: true,
    })),
    extras: item.extras.map(({ name, least, most, options }) => ({
      name,
      least: String(least),
      most: String(most),
      options: options.map((option) => ({ ...option, price: amount(option.price) })),
    })),
  };
}
