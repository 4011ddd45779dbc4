/** A printer for practice: what it would have printed hangs on a roll that can be looked at. */
import type { Receipt } from '../../core/receipt/receipt';
import type { PaperWords } from '../../core/receipt/receipt-text';
import { paperPicture, type PaperWidth } from '../receipt/paper';
import type { Printer } from './printer';

export type OnRoll = { readonly key: number; readonly at: string } & (
  | {
      readonly is: 'paper';
      readonly number: string;
      readonly svg: string;
      readonly width: PaperWidth;
    }
  | { readonly is: 'pulse'; readonly why: string }
);

const MOST = 50;

class PracticePrinter implements Printer {
  readonly name = 'Practice printer';
  #count = 0;
  /** What came out of it since the window was opened, the latest first. */
  roll = $state.raw<readonly OnRoll[]>([]);

  async print(receipt: Receipt, words: PaperWords, width: PaperWidth): Promise<void> {
    const svg = await paperPicture(receipt, words, width);
    this.#hang({ is: 'paper', number: receipt.number, svg, width });
  }

  openDrawer(why: string): Promise<void> {
    this.#hang({ is: 'pulse', why });
    return Promise.resolve();
  }

  #hang(
    what:
      | { is: 'paper'; number: string; svg: string; width: PaperWidth }
      | { is: 'pulse'; why: string },
  ) {
    const key = (this.#count += 1);
    const at = new Date().toISOString();
    this.roll = [{ ...what, key, at }, ...this.roll].slice(0, MOST);
  }
}

/** One for the window, as there is one printer on a table. */
export const practicePrinter = new PracticePrinter();
