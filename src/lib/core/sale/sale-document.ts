/** A sale as its page and its receipts show it: the same out of a device's rows and out of the server's. */
import type { Row } from '../books/tables';

export interface SaleDocument {
  readonly sale: Row<'sales'>;
  readonly lines: readonly Row<'saleLines'>[];
  readonly payments: readonly Row<'payments'>[];
  readonly voids: readonly Row<'voids'>[];
  readonly undone: readonly Row<'voidsUndone'>[];
  /** What had been booked wrongly of it; the rows here are as it was put right. */
  readonly corrections: readonly Row<'corrections'>[];
  /** As `Correctable` has it. */
  readonly handedOut?: Readonly<Record<string, number>> | undefined;
  readonly isMoved?: boolean | undefined;
  /** What of it came back, the first first. */
  readonly returns: readonly Row<'returns'>[];
  /** What goes back to its cards for that. */
  readonly refunds: readonly Row<'cardRefunds'>[];
  readonly payers: readonly Row<'payers'>[];
}

/** A sale as it stands in a list of those that were found. */
export interface FoundSale {
  readonly sale: Pick<Row<'sales'>, 'id' | 'number' | 'day' | 'at' | 'by' | 'total' | 'uplift'>;
  readonly lines: readonly Pick<Row<'saleLines'>, 'name'>[];
  readonly isVoid: boolean;
  /** What was given back for goods of it; minor units. */
  readonly back: number;
}

/** As many as a search finds at most. */
export const MOST_FOUND = 50;

/** Letters or figures from which on people, references and cards are looked for. */
export const SHORTEST = 2;
export const SHORTEST_REFERENCE = 3;
