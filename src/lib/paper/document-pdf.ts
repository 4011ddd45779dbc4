/** A document with lines (a list of goods, a count) as a PDF file: on a sheet, or as wide as a till roll. */
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import type { DocumentPaper } from '../core/receipt/document-paper';

export type { DocumentPaper };

export type PaperShape = 'sheet' | 'roll';

/** PostScript points in a millimetre. */
const MM = 72 / 25.4;

/** @returns The file's bytes. The library is only fetched when it is asked for. */
export async function documentPdf(paper: DocumentPaper, shape: PaperShape): Promise<Uint8Array> {
  const [{ default: pdfmake }, { default: fonts }] = await Promise.all([
    import('pdfmake/build/pdfmake'),
    import('pdfmake/build/vfs_fonts'),
  ]);
  pdfmake.addVirtualFileSystem(fonts);
  return await pdfmake.createPdf(definition(paper, shape)).getBuffer();
}

/** What is on it, for the library to set. */
export function definition(paper: DocumentPaper, shape: PaperShape): TDocumentDefinitions {
  const isRoll = shape === 'roll';
  const head: Content[] = [
    { text: paper.head, fontSize: isRoll ? 9 : 10 },
    { text: `${paper.title} ${paper.number}`, fontSize: isRoll ? 12 : 18, bold: true },
    ...paper.facts.map(([label, value]) => ({
      text: `${label}: ${value}`,
      fontSize: isRoll ? 8 : 10,
    })),
  ];
  return {
    info: { title: `${paper.title} ${paper.number}` },
    ...(isRoll
      ? { pageSize: { width: 80 * MM, height: 'auto' as const }, pageMargins: 5 * MM }
      : { pageSize: 'A4' as const, pageMargins: 18 * MM }),
    content: [
      ...head,
      isRoll ? roll(paper) : table(paper),
      ...sums(paper, isRoll),
      { text: paper.foot, fontSize: isRoll ? 8 : 10, margin: [0, 8, 0, 0] },
    ],
  };
}

const table = ({ columns, rows }: DocumentPaper): Content => ({
  margin: [0, 12, 0, 0],
  fontSize: 10,
  layout: 'lightHorizontalLines',
  table: {
    headerRows: 1,
    widths: columns.map(({ isFigure }) => (isFigure ? 'auto' : '*')),
    body: [
      columns.map(({ head, isFigure }) => ({ text: head, bold: true, ...side(isFigure) })),
      ...rows.map((row) =>
        row.map((text, at) => ({ text, ...side(columns[at]?.isFigure === true) })),
      ),
    ],
  },
});

const sums = ({ sums: all = [] }: DocumentPaper, isRoll: boolean): Content[] =>
  all.length === 0
    ? []
    : [
        {
          margin: [0, 8, 0, 0],
          fontSize: isRoll ? 8 : 10,
          layout: 'noBorders',
          table: {
            widths: ['*', 'auto'],
            body: all.map(([label, value], at) => {
              const bold = at === all.length - 1;
              return [
                { text: label, bold, ...side(true) },
                { text: value, bold, ...side(true) },
              ];
            }),
          },
        },
      ];

const side = (isFigure: boolean) => (isFigure ? { alignment: 'right' as const } : {});

/** What the thing is on one line, its figures on the one below it. */
const roll = ({ columns, rows }: DocumentPaper): Content => ({
  margin: [0, 8, 0, 0],
  stack: rows.map((row) => ({
    margin: [0, 0, 0, 4] as [number, number, number, number],
    stack: [
      { text: row[0] ?? '', fontSize: 9, bold: true },
      {
        fontSize: 8,
        text: row
          .flatMap((text, at) =>
            at > 0 && text !== '' ? [`${columns[at]?.head ?? ''} ${text}`] : [],
          )
          .join(' · '),
      },
    ],
  })),
});
