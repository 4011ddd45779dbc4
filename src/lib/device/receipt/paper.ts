/** A receipt on paper of a printer: as a picture of what it would print, and as its commands. */
import type { Receipt } from '../../core/receipt/receipt';
import { receiptMarkup } from '../../core/receipt/receipt-markup';
import { paperLines, type PaperWords } from '../../core/receipt/receipt-text';

/** Letters on a line, by the width of the paper in millimetres. */
const LETTERS = { 58: 32, 80: 48 } as const;
export type PaperWidth = keyof typeof LETTERS;

const documentOf = (receipt: Receipt, words: PaperWords, width: PaperWidth): string =>
  receiptMarkup(paperLines(receipt, words), receipt, LETTERS[width]);

/** SVG of what the paper would show. */
export async function paperPicture(
  receipt: Receipt,
  words: PaperWords,
  width: PaperWidth,
): Promise<string> {
  const { transform } = await import('receiptline');
  const svg = transform(documentOf(receipt, words, width), {
    cpl: LETTERS[width],
    encoding: 'multilingual',
    command: 'svg',
  });
  // It asks for a font from elsewhere, which a till with no network could never have.
  return svg.replace(/@import url\([^)]*\);?/g, '');
}

/** ESC/POS commands, a byte a letter. */
export async function paperCommands(
  receipt: Receipt,
  words: PaperWords,
  width: PaperWidth,
): Promise<Uint8Array> {
  const { transform } = await import('receiptline');
  const commands = transform(documentOf(receipt, words, width), {
    cpl: LETTERS[width],
    encoding: 'multilingual',
    command: 'escpos',
  });
  return Uint8Array.from(commands, (letter) => letter.charCodeAt(0));
}
