/** A list of goods on paper, and an order as the letter that brings it: the same on a device and on the server. */
import { SUPPLIERS } from '../books/names';
import type { Row } from '../books/tables';
import { dayWords } from '../event/day-words';
import { nameAmong } from '../goods/item-name';
import { costText } from '../money/cost-text';
import { counted, quantityWords } from '../money/units';
import type { DocumentPaper } from '../receipt/document-paper';
import { listNumber, packedOf, type LineNow } from './list-state';
import { placeName, type NamedPlaces } from './place-name';

export interface ListDocument {
  readonly list: Row<'lists'>;
  readonly lines: readonly LineNow[];
  readonly business: Pick<Row<'businesses'>, 'name' | 'currency' | 'locale'>;
  readonly items: ReadonlyMap<string, Pick<Row<'items'>, 'name' | 'detail' | 'code' | 'unit'>>;
  readonly supplies: ReadonlyMap<string, Pick<Row<'supplies'>, 'suppliers'>>;
  readonly named: NamedPlaces;
}

/** What each is called. */
export const LIST_NAMES: Readonly<Record<Row<'lists'>['use'], string>> = {
  load: 'Load list',
  unload: 'Unload list',
  transfer: 'Transfer',
  order: 'Order',
  back: 'Back to a supplier',
};

/** What a supplier calls an item, where they have a code for it. */
const theirCode = ({ supplies, list }: ListDocument, item: string): string =>
  supplies.get(item)?.suppliers.find(({ supplier }) => supplier === list.supplier)?.code ?? '';

/** @param quantity Thousandths. */
const muchOf = ({ items }: ListDocument, item: string, quantity: number): string =>
  quantityWords(quantity, items.get(item)?.unit ?? '');
const figure = (quantity: number): string => (quantity === 0 ? '' : quantityWords(quantity, ''));

export function listPaper(of: ListDocument): DocumentPaper {
  const { list, lines, business, named } = of;
  const isSuppliers = list.supplier !== null;
  const wanted = lines.filter((line) => line.wanted > 0 || line.packed > 0 || line.received > 0);
  return {
    title: list.name,
    number: listNumber(list),
    head: business.name,
    facts: [
      ['From', placeName(list.from, named, list.supplier)],
      ['To', placeName(list.to, named, list.supplier)],
      ...(list.day === null ? [] : ([['Wanted by', dayWords(list.day, business.locale)]] as const)),
      ...(list.note === '' ? [] : ([['Note', list.note]] as const)),
    ],
    columns: [
      { head: LIST_NAMES[list.use], isFigure: false },
      { head: isSuppliers ? 'your code' : 'code', isFigure: false },
      { head: 'wanted', isFigure: true },
      { head: list.from === SUPPLIERS ? 'came' : 'packed', isFigure: true },
      ...(isSuppliers ? [{ head: 'price', isFigure: true }] : []),
    ],
    rows: wanted.map((line) => [
      nameAmong(of.items, line.item),
      isSuppliers ? theirCode(of, line.item) : (of.items.get(line.item)?.code ?? ''),
      muchOf(of, line.item, line.wanted),
      figure(list.from === SUPPLIERS ? line.received : packedOf(line)),
      ...(isSuppliers ? [costText(line.price, business.currency)] : []),
    ]),
    foot: counted(wanted.length, 'item'),
  };
}

/** An order as a letter to whoever delivers it. */
export function orderLetter(of: ListDocument): { readonly subject: string; readonly text: string } {
  const { list, lines, business } = of;
  const by = list.day === null ? '' : `, by ${dayWords(list.day, business.locale)}`;
  return {
    subject: `Order ${listNumber(list)} from ${business.name}`,
    text: [
      `We would like to order${by}:`,
      '',
      ...lines
        .filter(({ wanted }) => wanted > 0)
        .map(({ item, wanted }) => {
          const code = theirCode(of, item);
          const what = `${muchOf(of, item, wanted)} × ${nameAmong(of.items, item)}`;
          return code === '' ? what : `${what} (${code})`;
        }),
      ...(list.note === '' ? [] : ['', list.note]),
      '',
      business.name,
    ].join('\r\n'),
  };
}
