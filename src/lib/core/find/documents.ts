/** Documents beside sales that Find looks through: what each is called, and whether it is what was typed. */
import { hasWords, folded, wordsIn } from '../entry-line/words';
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

/** As many of a kind as are shown at most. */
export const MOST_OF_A_KIND = 20;

/**
 * Those that fit: by the beginning of their number, by every word somewhere in what they say, by the amount, or by the
 * day. Whose number it is comes first, and then the latest. Accents and capitals make no difference.
 * @param currency ISO 4217.
 */
export function fittingDocuments(
  documents: readonly FoundDocument[],
  typed: string,
  currency: string,
): readonly FoundDocument[] {
  const wanted = folded(typed.trim());
  if (wanted.length < 2) return [];
  const words = wordsIn(typed);
  const read = readAmount(wanted, currency);
  const amount = read.ok ? read.amount : null;
  const isByNumber = ({ number }: FoundDocument): boolean =>
    number !== '' && folded(number).startsWith(wanted);
  const isBy = (document: FoundDocument): boolean =>
    isByNumber(document) ||
    (amount !== null && document.amount !== null && Math.abs(document.amount) === amount) ||
    document.at.slice(0, 10) === wanted ||
    (words.length > 0 && hasWords([document.number, document.title, ...document.about], words));
  const counts = new Map<DocumentKind, number>();
  return documents
    .filter(isBy)
    .sort((a, b) => {
      const byNumber = Number(isByNumber(b)) - Number(isByNumber(a));
      return byNumber === 0 ? (a.at < b.at ? 1 : a.at > b.at ? -1 : 0) : byNumber;
    })
    .filter(({ kind }) => {
      const many = (counts.get(kind) ?? 0) + 1;
      counts.set(kind, many);
      return many <= MOST_OF_A_KIND;
    });
}
