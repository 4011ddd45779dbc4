/** A list of goods in a file. */
import { guarded } from '$lib/core/formats/csv-cell';
import { costText } from '$lib/core/money/cost-text';
import { quantityText, thousandths } from '$lib/core/money/units';
import { nameAmong } from '$lib/core/goods/item-name';
import type { ListDocument } from '$lib/core/stock/list-paper';
import { listNumber } from '$lib/core/stock/list-state';
import { saveCsv } from '$lib/ui/files/save-csv';

/** Its lines as a CSV file (RFC 4180); taken in again, it gives the same list. */
export function saveListFile({ list, lines, items, business }: ListDocument): void {
  const rows = lines.map((line) => ({
    code: guarded(items.get(line.item)?.code ?? ''),
    item: guarded(nameAmong(items, line.item)),
    wanted: quantityText(thousandths(line.wanted)),
    price: costText(line.price, business.currency),
    note: guarded(line.note),
    packed: quantityText(thousandths(line.packed)),
    arrived: quantityText(thousandths(line.received)),
  }));
  saveCsv(listNumber(list), rows);
}
