/** Documents beside sales that Find looks through: what each is called, and whether it is what was typed. */
import { folded, wordsIn } from '../entry-line/words';
import type { Row } from '../books/tables';
import { readAmount } from '../money/amount-text';

/** What a document is; its own page is by that. */
export const DOCUMENT_KINDS = [
  'return',
  'read',
  'cash',
  'goods',
  'list',
  'count',
  'event',
  'customer',
  'voucher',
  'order',
  'invoice',
  'item',
  'supplier',
] as const;
export type DocumentKind = (typeof DOCUMENT_KINDS)[number];

export interface FoundDocument {
  readonly kind: DocumentKind;
  readonly id: string;
  /** Where it opens. */
  readonly href: string;
  /** As people call it; empty where it has no number. */
  readonly number: string;
  readonly title: string;
  /** What else it can be found by, and is shown beside it. */
  readonly about: readonly string[];
  /** ISO 8601; empty for what has no time of its own. */
  readonly at: string;
  /** Minor units. */
  readonly amount: number | null;
}

/** What there is to say of any; what has no page of its own is shown by the page of documents. */
export const documentOf = (
  kind: DocumentKind,
  { id, at = '' }: { readonly id: string; readonly at?: string },
  href = `/documents/${id}`,
): FoundDocument => ({ kind, id, at, href, number: '', title: '', about: [], amount: null });

/** Money given back without a sale. @param person Who did it. */
export const refundToFind = (
  row: Pick<Row<'refunds'>, 'id' | 'at' | 'number' | 'saleNumber' | 'reason' | 'total' | 'lines'>,
  person: string,
): FoundDocument => ({
  ...documentOf('return', row),
  ...{ number: row.number, amount: 0 - row.total },
  title: row.lines.map(({ name }) => name).join(', '),
  about: [row.saleNumber === '' ? 'without a sale' : `of ${row.saleNumber}`, row.reason, person],
});

/** Cash that was moved. @param event The name of where. @param person Who did it. */
export const cashToFind = (
  row: Pick<Row<'cashMoves'>, 'id' | 'at' | 'bag' | 'what' | 'amount'>,
  event: string,
  person: string,
): FoundDocument => ({
  ...documentOf('cash', row),
  ...{ number: row.bag, title: row.what === '' ? 'Cash moved' : row.what, amount: row.amount },
  about: [event, person],
});

/** Goods that were moved. @param title The item's name. @param places The names of where from and where to. */
export const goodsToFind = (
  row: Pick<Row<'movements'>, 'id' | 'at' | 'note'>,
  title: string,
  [from, to]: readonly [from: string, to: string],
  person: string,
): FoundDocument => ({
  ...documentOf('goods', row),
  ...{ title, about: [`${from} → ${to}`, row.note, person] },
});

/** What devices let go of with its event, as its page shows it. */
export type OlderDocument =
  | { readonly is: 'goods'; readonly row: Row<'movements'> }
  | {
      readonly is: 'cash';
      readonly row: Row<'cashMoves'>;
      readonly drawers: readonly (readonly [id: string, name: string])[];
    }
  | {
      readonly is: 'refund';
      readonly row: Row<'refunds'>;
      /** Where its money is, if it goes onto a card. */
      readonly card: Row<'cardRefunds'> | null;
    };

/** As many of a kind as are shown at most. */
export const MOST_OF_A_KIND = 20;

/** What a document is found by, made ready once for every key that follows. */
export interface DocumentToFind {
  readonly document: FoundDocument;
  /** Without accents and capitals. */
  readonly number: string;
  readonly text: string;
}

export const documentsToFind = (documents: readonly FoundDocument[]): readonly DocumentToFind[] =>
  documents.map((document) => ({
    document,
    number: folded(document.number),
    text: folded([document.number, document.title, ...document.about].join(' ')),
  }));

/**
 * Those that fit: by the beginning of their number, by every word somewhere in what they say, by the amount, or by the
 * day. Whose number it is comes first, and then the latest. Accents and capitals make no difference.
 * @param currency ISO 4217.
 */
export function fittingDocuments(
  documents: readonly DocumentToFind[],
  typed: string,
  currency: string,
): readonly FoundDocument[] {
  const wanted = folded(typed.trim());
  if (wanted.length < 2) return [];
  const words = wordsIn(typed);
  const read = readAmount(wanted, currency);
  const amount = read.ok ? read.amount : null;
  const isByNumber = ({ number }: DocumentToFind): boolean =>
    number !== '' && number.startsWith(wanted);
  const isBy = (each: DocumentToFind): boolean =>
    isByNumber(each) ||
    (amount !== null &&
      each.document.amount !== null &&
      Math.abs(each.document.amount) === amount) ||
    each.document.at.slice(0, 10) === wanted ||
    (words.length > 0 && words.every((word) => each.text.includes(word)));
  const counts = new Map<DocumentKind, number>();
  return documents
    .filter(isBy)
    .sort((a, b) => {
      const byNumber = Number(isByNumber(b)) - Number(isByNumber(a));
      const [at, other] = [a.document.at, b.document.at];
      return byNumber === 0 ? (at < other ? 1 : at > other ? -1 : 0) : byNumber;
    })
    .map(({ document }) => document)
    .filter(({ kind }) => {
      const many = (counts.get(kind) ?? 0) + 1;
      counts.set(kind, many);
      return many <= MOST_OF_A_KIND;
    });
}
