/** The documents behind a row of the settling page, a page at a time. */

/** What the documents are of: parts that went into a drawer, parts by a way, lines of an item. */
export const BEHIND = ['drawer', 'way', 'item'] as const;
export type Behind = (typeof BEHIND)[number];

export interface BehindDocument {
  /** The sale that it stands on; null where nothing has been rung up for it. */
  readonly sale: string | null;
  /** The sale's number, or what the part is called without one. */
  readonly number: string;
  readonly at: string;
  readonly by: string | null;
  /** Minor units of the row: what went into the drawer, what the way took, what the line came to. */
  readonly amount: number;
  /** Thousandths, for lines of an item. */
  readonly quantity: number | null;
  /** It was voided or given back, and is not in the row any more. */
  readonly isBack: boolean;
}

export interface BehindPage {
  readonly documents: readonly BehindDocument[];
  /** Where the next page begins; empty where there is none. */
  readonly next: string;
}

export const BEHIND_AT_ONCE = 40;
