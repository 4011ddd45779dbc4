/** Printing at this device: receipts and the pulse for the drawer, where a printer was chosen. */
import { toast } from 'svelte-sonner';
import { receiptOf } from '$lib/core/receipt/receipt';
import { practicePrinter } from '$lib/device/printer/practice-printer.svelte';
import { notePrinted, printedName } from '$lib/device/printer/printed';
import { NO_PRINTER, type Printer } from '$lib/device/printer/printer';
import { paperWords } from '$lib/ui/words/receipt-words';
import type { Stall } from './stall.svelte';

export const printerOf = (stall: Stall): Printer | null =>
  (stall.choices.printer ?? NO_PRINTER).printer === 'practice' ? practicePrinter : null;

/** Opens the drawer for a part of a payment. Nothing waits for it. */
export function openDrawerFor(stall: Stall, why: string): void {
  const printer = printerOf(stall);
  printer?.openDrawer(why).catch(() => {
    toast.error(`${printer.name} did not open the drawer.`);
  });
}

/**
 * Prints the receipt of a sale that has just been rung up, if this device prints each. Nothing waits for
 * it; what was not printed is said, and can be printed again.
 */
export function printIfEach(stall: Stall, sale: string): void {
  printSale(stall, sale).catch(() => {
    toast.error('The receipt was not printed. It can be printed again from the sale.');
  });
}

async function printSale(stall: Stall, sale: string): Promise<void> {
  const { isEach, width } = stall.choices.printer ?? NO_PRINTER;
  const printer = printerOf(stall);
  if (!isEach || printer === null) return;
  await stall.daybook.settle();
  const { books } = stall.db;
  const row = await books.sales.get(sale);
  if (row === undefined) return;
  const event = stall.events.find(({ id }) => id === row.event);
  const payments = await books.payments.bulkGet([...row.payments]);
  const isAgain = await notePrinted(stall.db, printedName(sale, false, 0));
  const receipt = receiptOf({
    isAgain,
    business: stall.business,
    event,
    sale: row,
    lines: await books.saleLines.where('sale').equals(sale).sortBy('line'),
    payments: payments.flatMap((part) => (part ? [part] : [])),
    seller: row.by === null ? '' : stall.nameOf(row.by),
  });
  await printer.print(receipt, paperWords(row, stall.business, event), width);
}
