/** A receipt as a PDF file, as wide as a till roll and as long as it needs to be. */
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { receiptCode, type Receipt } from '../../core/receipt/receipt';
import {
  paperLines,
  type Look,
  type PaperLine,
  type PaperWords,
} from '../../core/receipt/receipt-text';

/** PostScript points in a millimetre. */
const MM = 72 / 25.4;
const WIDTH = 80 * MM;
const MARGIN = 5 * MM;
const INSIDE = WIDTH - 2 * MARGIN;

const SIZES: Readonly<Record<Look, number>> = { plain: 9, small: 7.5, strong: 10, large: 13 };

/** @returns The file's bytes. The library is only fetched when it is asked for. */
export async function receiptPdf(receipt: Receipt, words: PaperWords): Promise<Uint8Array> {
  const [{ default: pdfmake }, { default: fonts }] = await Promise.all([
    import('pdfmake/build/pdfmake'),
    import('pdfmake/build/vfs_fonts'),
  ]);
  pdfmake.addVirtualFileSystem(fonts);
  return await pdfmake.createPdf(pdfDocument(receipt, words)).getBuffer();
}

/** What is on it, for the library to set. */
export function pdfDocument(receipt: Receipt, words: PaperWords): TDocumentDefinitions {
  const code = receiptCode(receipt);
  return {
    info: { title: code },
    pageSize: { width: WIDTH, height: 'auto' },
    pageMargins: MARGIN,
    content: [
      ...paperLines(receipt, words).map(content),
      { qr: code, fit: 22 * MM, alignment: 'center', margin: [0, 6, 0, 2] },
      { text: code, fontSize: SIZES.small, alignment: 'center' },
    ],
  };
}

function content(line: PaperLine): Content {
  if (line.is === 'rule')
    return {
      canvas: [{ type: 'line', x1: 0, y1: 3, x2: INSIDE, y2: 3, lineWidth: 0.5 }],
      margin: [0, 0, 0, 4],
    };
  const { look } = line;
  const set = { fontSize: SIZES[look], bold: look === 'strong' || look === 'large' };
  if (line.is === 'centre') return { text: line.text, alignment: 'center', ...set };
  const left = line.left.trim();
  const indent = line.left.length - line.left.trimStart().length;
  return {
    columns: [
      { width: '*', text: left, margin: [indent * 4, 0, 0, 0] },
      { width: 'auto', text: line.right, alignment: 'right' },
    ],
    columnGap: 6,
    ...set,
  };
}
