/** A card reader at this device. What it reads is sealed for the acquirer: no number is ever seen here. */

export interface CardRead {
  readonly is: 'card';
  readonly scheme: string;
  readonly last4: string;
  readonly entry: 'tap' | 'insert' | 'swipe' | 'keyed';
  /** Opaque to everybody but the acquirer. */
  readonly sealed: string;
}

/** What became of asking for a card. Nothing has been charged by any of it. */
export type ReaderOutcome =
  | CardRead
  | { readonly is: 'cancelled' }
  | { readonly is: 'wrong PIN' }
  | { readonly is: 'timed out' }
  | { readonly is: 'lost power' };

export interface CardReader {
  /** What to call it on the screen. */
  readonly name: string;
  /**
   * Asks for a card for this amount, in minor units. It resolves with what the reader says and never
   * rejects; when `signal` is aborted the reader stops asking.
   */
  read(amount: number, currency: string, signal: AbortSignal): Promise<ReaderOutcome>;
}
