/** A file of a bank: which format it is, and what it says. */
import { readCamt053 } from '../formats/camt053';
import { readMt940 } from '../formats/mt940';
import { readOfx } from '../formats/ofx';
import type { ReadStatements } from './statement';

export type BankFormat = 'CAMT.053' | 'MT940' | 'OFX' | 'CSV';

/** A month of a busy account is far smaller. Bytes. */
export const MOST_BYTES = 20_000_000;

/** By what is in it: names and endings of files say little. */
export function formatOf(text: string): BankFormat {
  const start = text.slice(0, 2000);
  if (/<OFX>|OFXHEADER/.test(start)) return 'OFX';
  if (/^\s*(\uFEFF)?\s*<(\?xml|[\w:]*Document)/.test(start)) return 'CAMT.053';
  if (/(^|\n|\})\s*:20:/.test(start)) return 'MT940';
  return 'CSV';
}

/** @param format Not CSV, whose columns somebody has to choose. */
export function readStatements(text: string, format: Exclude<BankFormat, 'CSV'>): ReadStatements {
  switch (format) {
    case 'CAMT.053':
      return readCamt053(text);
    case 'MT940':
      return readMt940(text);
    case 'OFX':
      return readOfx(text);
  }
}
