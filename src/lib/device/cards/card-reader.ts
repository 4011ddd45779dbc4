/** A card reader at this device. What it reads is sealed for the acquirer: no number is ever seen here. */
import type { OfferedTip } from '../../core/payment/tip';

export interface CardRead {
  readonly is: 'card';
  readonly scheme: string;
  readonly last4: string;
  readonly entry: 'tap' | 'insert' | 'swipe' | 'keyed' | 'file';
  /** Opaque to everybody but the acquirer; empty for a card on file. */
  readonly sealed: string;
  /** Whose card on file it is; missing for one that was read or typed in. */
  readonly customer?: string;
  /** Minor units that the reader showed to the customer. */
  readonly shown: number;
}

/** What became of asking for a card. Nothing has been charged by any of it. */
export type ReaderOutcome =
  | CardRead
  | { readonly is: 'cancelled' }
  | { readonly is: 'wrong PIN' }
  | { readonly is: 'timed out' }
  | { readonly is: 'lost power' };

/** What a customer gives on top, in minor units; null where they stopped there. */
export type TipAnswer = number | null;

export interface CardReader {
  /** What to call it on the screen. */
  readonly name: string;
  /** Whether the customer stands here with the card, and so can sign. */
  readonly isHere: boolean;
  /**
   * Asks for a tip on its own display, before it asks for a card. Missing where it has none.
   * @param amount Minor units that the tip goes on top of.
   */
  readonly askTip?: (
    amount: number,
    offered: readonly OfferedTip[],
    signal: AbortSignal,
  ) => Promise<TipAnswer>;
  /**
   * Asks for a card for this amount, in minor units: to pay it, or to be given it. It resolves with what the reader says
   * and never rejects; when `signal` is aborted the reader stops asking.
   */
  read(
    amount: number,
    currency: string,
    signal: AbortSignal,
    does?: 'pay' | 'give',
  ): Promise<ReaderOutcome>;
}
