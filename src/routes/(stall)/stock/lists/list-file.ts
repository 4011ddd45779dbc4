/** A list of goods in a file. */
import type { Row } from '$lib/core/books/tables';
import { guarded } from '$lib/core/formats/csv-cell';
import { costText } from '$lib/core/money/cost-text';
import { quantityText, thousandths } from '$lib/core/money/units';
import { listNumber, type LineNow } from '$lib/core/stock/list-state';
import { saveCsv } from '$lib/ui/files/save-csv';
import type { Goods } from '../goods.svelte';

interface OfList {
  readonly list: Row<'lists'>;
  readonly lines: readonly LineNow[];
  readonly goods: Goods;
  readonly business: Row<'businesses'>;
}

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
