/** Invoices that words name, such as those that somebody gave a transfer at their bank. */
import type { InvoiceNow } from './invoice-state';

/** As it is compared: people leave out blanks and dashes, and banks write in capitals. */
const bare = (text: string): string =>
  text
    .normalize('NFKC')
    .toUpperCase()
    .replaceAll(/[^0-9A-Z]/g, '');

/** A shorter one could stand in any words. */
const SHORTEST_NUMBER = 4;

/** Those of which something is still to pay and whose number stands there, the one with the longest number first. */
export function invoicesNamed(text: string, all: readonly InvoiceNow[]): readonly InvoiceNow[] {
  const words = bare(text);
  return all
    .filter(({ number, left }) => left > 0 && isIn(words, bare(number)))
    .toSorted((a, b) => b.number.length - a.number.length);
}

/** R2026-0001 is not R2026-00012. */
function isIn(words: string, number: string): boolean {
  if (number.length < SHORTEST_NUMBER) return false;
  for (let at = words.indexOf(number); at >= 0; at = words.indexOf(number, at + 1))
    if (!/^[0-9]/.test(words.slice(at + number.length))) return true;
  return false;
}
