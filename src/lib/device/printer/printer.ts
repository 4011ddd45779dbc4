/** A receipt printer at this device, with the drawer that hangs on it. */
import type { Receipt } from '../../core/receipt/receipt';
import type { PaperWords } from '../../core/receipt/receipt-text';
import type { PaperWidth } from '../receipt/paper';

export interface Printer {
  /** What to call it on the screen. */
  readonly name: string;
  print(receipt: Receipt, words: PaperWords, width: PaperWidth): Promise<void>;
  /** The pulse that opens the drawer; why, in a word, for whoever looks at the roll. */
  openDrawer(why: string): Promise<void>;
}

/** The printer of a device, as somebody chose it there. */
export interface PrinterChoice {
  readonly printer: 'none' | 'practice';
  readonly width: PaperWidth;
  /** Prints the receipt of each sale without being asked. */
  readonly isEach: boolean;
}

export const NO_PRINTER: PrinterChoice = { printer: 'none', width: 80, isEach: false };
