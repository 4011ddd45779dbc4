/** How large an entry may be: what somebody writes at a stall is small, and one hostile one must not be large. */
import { utf8ToBytes } from '@noble/hashes/utils.js';
import type { Entry } from './entry';

/** Bytes, as JSON in UTF-8. */
export const LARGEST_ENTRY = 64 * 1024;
const LARGEST_PICTURE_ENTRY = 100 * 1024;
/** The postings of a sale of as many lines as a slip may hold. */
const LARGEST_TAKE_BACK = 512 * 1024;

const LARGEST_OF: Readonly<Record<string, number>> = {
  'photo.set': LARGEST_PICTURE_ENTRY,
  'cash.moved': LARGEST_PICTURE_ENTRY,
  'sale.voided': LARGEST_TAKE_BACK,
  'void.undone': LARGEST_TAKE_BACK,
  'return.made': LARGEST_TAKE_BACK,
  'sale.corrected': LARGEST_TAKE_BACK,
  // With what comes back and pays for it.
  'slip.set': LARGEST_TAKE_BACK,
};

export const bytesOf = (value: unknown): number => utf8ToBytes(JSON.stringify(value)).length;

/** @param text The entry as JSON, where it is known. */
export function isTooLarge(entry: Entry, text = JSON.stringify(entry)): boolean {
  const most = LARGEST_OF[entry.kind] ?? LARGEST_ENTRY;
  // No character takes more than three bytes for each of its UTF-16 units: most need not be counted.
  return text.length * 3 > most && utf8ToBytes(text).length > most;
}
