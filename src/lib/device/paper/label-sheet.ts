/** Labels with a barcode, for shelves and goods: on a sheet of 24, or one under another on a roll. */
import type { Content } from 'pdfmake/interfaces';

export interface Label {
  /** What a scanner reads. */
  readonly code: string;
  readonly name: string;
  /** A price, a size. */
  readonly detail: string;
}

const MM = 72 / 25.4;
const ACROSS = 3;

/** @returns A PDF file's bytes: A4 with three labels across, 70 by 35 mm each, or a roll of 62 mm. */
export async function labelSheet(
  labels: readonly Label[],
  shape: 'sheet' | 'roll' = 'sheet',
): Promise<Uint8Array> {
  const [{ default: pdfmake }, { default: fonts }, bwip] = await Promise.all([
    import('pdfmake/build/pdfmake'),
    import('pdfmake/build/vfs_fonts'),
    import('bwip-js/browser'),
  ]);
  pdfmake.addVirtualFileSystem(fonts);
  const bars = (code: string): string => {
    const isGtin = /^\d{13}$/.test(code);
    try {
      return bwip.toSVG({ bcid: isGtin ? 'ean13' : 'code128', text: code, height: 10 });
    } catch {
      // A number that is no GTIN after all.
      return bwip.toSVG({ bcid: 'code128', text: code, height: 10 });
    }
  };
  const one = ({ code, name, detail }: Label): Content => ({
    stack: [
      { text: name, fontSize: 9, bold: true, noWrap: false },
      ...(detail === '' ? [] : [{ text: detail, fontSize: 9 }]),
      { svg: bars(code), width: 46 * MM, height: 13 * MM, margin: [0, 3, 0, 1] },
      { text: code, fontSize: 7 },
    ],
    margin: [4 * MM, 3 * MM, 4 * MM, 0],
  });
  if (shape === 'roll')
    return await pdfmake
      .createPdf({
        pageSize: { width: 62 * MM, height: 35 * MM },
        pageMargins: 0,
        content: labels.map((label, at) => ({
          stack: [one(label)],
          ...(at === 0 ? {} : { pageBreak: 'before' as const }),
        })),
      })
      .getBuffer();
  const rows: Content[][] = [];
  for (let at = 0; at < labels.length; at += ACROSS) {
    const cells = labels.slice(at, at + ACROSS).map(one);
    while (cells.length < ACROSS) cells.push({ text: '' });
    rows.push(cells);
  }
  return await pdfmake
    .createPdf({
      pageSize: 'A4',
      pageMargins: [0, 8 * MM, 0, 8 * MM],
      content: [
        {
          layout: 'noBorders',
          table: { widths: ['*', '*', '*'], heights: 33 * MM, body: rows },
        },
      ],
    })
    .getBuffer();
}
