/** Printing at this device: receipts and the pulse for the drawer, where a printer was chosen. */
import { receiptOf } from '$lib/core/receipt/receipt';
import { practicePrinter } from '$lib/device/printer/practice-printer.svelte';
import { NO_PRINTER, type Printer } from '$lib/device/printer/printer';
import { dayWords, timeWords } from '$lib/ui/words/date-words';
import type { Stall } from './stall.svelte';

export const printerOf = (stall: Stall): Printer | null =>
  (stall.choices.printer ?? NO_PRINTER).printer === 'practice' ? practicePrinter : null;

/** Opens the drawer for a part of a payment. Nothing waits for it. */
export function openDrawerFor(stall: Stall, why: string): void {
  printerOf(stall)
    ?.openDrawer(why)
    .catch(() => undefined);
}

/** Prints the receipt of a sale that has just been rung up, if this device prints each. */
export async function printIfEach(stall: Stall, sale: string): Promise<void> {
  const { isEach, width } = stall.choices.printer ?? NO_PRINTER;
  const printer = printerOf(stall);
  if (!isEach || printer === null) return;
  await stall.daybook.settle();
  const { books } = stall.db;
  const row = await books.sales.get(sale);
  if (row === undefined) return;
  const event = stall.events.find(({ id }) => id === row.event);
  const payments = await books.payments.bulkGet([...row.payments]);
  const receipt = receiptOf({
    business: stall.business,
    event,
    sale: row,
    lines: await books.saleLines.where('sale').equals(sale).sortBy('line'),
    payments: payments.flatMap((part) => (part ? [part] : [])),
    seller: row.by === null ? '' : stall.nameOf(row.by),
  });
  const { locale } = stall.business;
  const time = timeWords(row.at, locale, event?.timeZone ?? stall.business.timeZone);
  await printer.print(receipt, { locale, when: `${dayWords(row.day, locale)}, ${time}` }, width);
}
