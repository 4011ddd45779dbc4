/** A list of goods on paper, in a file, and in a mail. */
import { SUPPLIERS, type Row } from '$lib/core/books/tables';
import { guarded } from '$lib/core/formats/csv-cell';
import { costText } from '$lib/core/money/cost-text';
import { quantityText, thousandths } from '$lib/core/money/units';
import { listNumber, packedOf, type LineNow } from '$lib/core/stock/list-state';
import type { DocumentPaper } from '$lib/paper/document-pdf';
import type { Letter } from '$lib/ui/files/mail-to';
import { saveCsv } from '$lib/ui/files/save-csv';
import { dayWords } from '$lib/ui/words/date-words';
import { quantityWords } from '$lib/ui/words/money-words';
import { orderMail, useWords } from '$lib/ui/words/stock-words';
import type { Goods } from '../goods.svelte';

interface OfList {
  readonly list: Row<'lists'>;
  readonly lines: readonly LineNow[];
  readonly goods: Goods;
  readonly business: Row<'businesses'>;
}

/** What a supplier calls an item, where they have a code for it. */
const theirCode = ({ goods, list }: OfList, item: string): string =>
  goods.supplies.get(item)?.suppliers.find(({ supplier }) => supplier === list.supplier)?.code ??
  '';

export function listPaper(of: OfList): DocumentPaper {
  const { list, lines, goods, business } = of;
  const isSuppliers = list.supplier !== null;
  const wanted = lines.filter((line) => line.wanted > 0 || line.packed > 0 || line.received > 0);
  return {
    title: list.name,
    number: listNumber(list),
    head: business.name,
    facts: [
      ['From', goods.placeName(list.from, list.supplier)],
      ['To', goods.placeName(list.to, list.supplier)],
      ...(list.day === null ? [] : ([['Wanted by', dayWords(list.day, business.locale)]] as const)),
      ...(list.note === '' ? [] : ([['Note', list.note]] as const)),
    ],
    columns: [
      { head: useWords[list.use], isFigure: false },
      { head: isSuppliers ? 'your code' : 'code', isFigure: false },
      { head: 'wanted', isFigure: true },
      { head: list.from === SUPPLIERS ? 'came' : 'packed', isFigure: true },
      ...(isSuppliers ? [{ head: 'price', isFigure: true }] : []),
    ],
    rows: wanted.map((line) => [
      goods.nameOf(line.item),
      isSuppliers ? theirCode(of, line.item) : (goods.items.get(line.item)?.code ?? ''),
      quantityWords(line.wanted, goods.unitOf(line.item)),
      figure(list.from === SUPPLIERS ? line.received : packedOf(line)),
      ...(isSuppliers ? [costText(line.price, business.currency)] : []),
    ]),
    foot: `${String(wanted.length)} items`,
  };
}
const figure = (quantity: number): string =>
  quantity === 0 ? '' : quantityText(thousandths(quantity));

/** Its lines as a CSV file (RFC 4180); taken in again, it gives the same list. */
export function saveListFile({ list, lines, goods, business }: OfList): void {
  const rows = lines.map((line) => ({
    code: guarded(goods.items.get(line.item)?.code ?? ''),
    item: guarded(goods.nameOf(line.item)),
    wanted: quantityText(thousandths(line.wanted)),
    price: costText(line.price, business.currency),
    note: guarded(line.note),
    packed: quantityText(thousandths(line.packed)),
    arrived: quantityText(thousandths(line.received)),
  }));
  saveCsv(listNumber(list), rows);
}

/** An order as a letter to whoever delivers it. */
export function orderLetter(of: OfList): Letter {
  return orderMail({
    number: listNumber(of.list),
    business: of.business.name,
    day: of.list.day === null ? '' : dayWords(of.list.day, of.business.locale),
    note: of.list.note,
    lines: of.lines
      .filter(({ wanted }) => wanted > 0)
      .map((line) => {
        const code = theirCode(of, line.item);
        const name = of.goods.nameOf(line.item);
        const much = quantityWords(line.wanted, of.goods.unitOf(line.item));
        return `${much} × ${name}${code === '' ? '' : ` (${code})`}`;
      }),
  });
}
