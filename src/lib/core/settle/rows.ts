/** What settling an event is worked out from: rows of the books, from wherever they are kept, all of one moment. */
import type { Row } from '../books/tables';
import type { MakersGoods } from './makers-share';

export interface SettlingRows {
  readonly event: Row<'events'>;
  readonly totals: Row<'eventTotals'> | undefined;
  readonly eventItems: readonly Row<'eventItems'>[];
  readonly hours: readonly Row<'eventHours'>[];
  readonly taxes: readonly Row<'eventTaxes'>[];
  readonly tips: readonly Row<'eventTips'>[];
  readonly accounts: readonly Pick<Row<'eventAccounts'>, 'account' | 'amount'>[];
  readonly drawers: readonly Row<'drawers'>[];
  readonly drawerSums: readonly Row<'drawerSums'>[];
  readonly drawerReads: readonly Row<'drawerReads'>[];
  readonly cashMoves: readonly Omit<Row<'cashMoves'>, 'photo'>[];
  readonly cards: readonly Row<'cardPayments'>[];
  /** Money that goes back to cards: of returns here, and of payments of the event wherever the goods came back. */
  readonly refunds: readonly Row<'cardRefunds'>[];
  /** Lines that may be about a card of the event: by their reference, or of its days and of no card that is known. */
  readonly lines: readonly Row<'cardLines'>[];
  readonly joins: readonly Row<'cardJoins'>[];
  readonly came: readonly Row<'moneyCame'>[];
  readonly handedIn: readonly Row<'handedIn'>[];
  readonly tipShares: readonly Row<'tipShares'>[];
  readonly paidOut: readonly Row<'paidOut'>[];
  readonly makerMails: readonly Pick<Row<'makerMails'>, 'maker'>[];
  readonly settled: readonly Row<'settledEvents'>[];
  readonly settlements: readonly Pick<Row<'settlements'>, 'looseEnd'>[];
  readonly ways: readonly Row<'ways'>[];
  readonly items: readonly Pick<Row<'items'>, 'id' | 'name' | 'detail' | 'unit' | 'price'>[];
  readonly makers: readonly Row<'makers'>[];
  /** What people are paid. */
  readonly staffPay: readonly Pick<Row<'staffPay'>, 'id' | 'wage' | 'commission'>[];
  /** What each sold of sales that stand: lines without tax, minor units. */
  readonly sellers: readonly { readonly seller: string; readonly net: number }[];
  /** Who was asked to look after which loose end. */
  readonly hands: readonly Pick<Row<'looseEndHands'>, 'looseEnd' | 'to' | 'note'>[];
  /** Lines of sales that stand, of makers' goods. */
  readonly makerLines: readonly MakersGoods[];
  /** What was sold and is not listed, by its price. */
  readonly unlisted: readonly { readonly price: number; readonly quantity: number }[];
  readonly movements: readonly Pick<Row<'movements'>, 'item' | 'from' | 'to' | 'quantity'>[];
  readonly counted: readonly Pick<Row<'countsAccepted'>, 'item' | 'counted' | 'expected'>[];
  /** Slips of the event that wait. */
  readonly waiting: readonly {
    readonly slip: Pick<Row<'slips'>, 'id' | 'name' | 'sort' | 'at' | 'by'>;
    readonly items: readonly { readonly item: string | null; readonly quantity: number }[];
  }[];
  /** Orders that were to be collected at it, and were not, as a whole; what is left of their deposits in minor units. */
  readonly uncollected: readonly {
    readonly order: string;
    readonly number: string;
    readonly deposit: number;
  }[];
  /** Slips that were rung up and not paid, or paid and not rung up; minor units, above nothing for owed to us. */
  readonly owing: readonly { readonly slip: string; readonly amount: number }[];
  /** Entries of the event that are doubted, barred or not understood, and not settled. */
  readonly kept: readonly {
    readonly id: string;
    readonly kind: string;
    /** Whether it counts all the same. */
    readonly isCounted: boolean;
    readonly message: string;
    readonly by: string | null;
  }[];
  /** Slips that were rung up twice. */
  readonly soldTwice: readonly { readonly slip: string; readonly numbers: readonly string[] }[];
  readonly devices: readonly SettlingDevice[];
  /** Earlier editions of its series, the latest first. */
  readonly before: readonly {
    readonly id: string;
    readonly name: string;
    readonly day: string;
    readonly takings: number;
    readonly sales: number;
  }[];
  /** Milliseconds since 1970. */
  readonly now: number;
}

/** A device as the server has it. */
export interface SettlingDevice {
  readonly id: string;
  readonly number: number;
  readonly name: string;
  readonly seq: number;
  readonly hash: string;
  /** When it was heard of last, milliseconds since 1970; 0 for not since that is written down. */
  readonly seenAt: number;
  /** The last entry that it said it has. */
  readonly headSaid: number;
  readonly isShutOut: boolean;
  /** Whether it has rung anything up at this event. */
  readonly hasWritten: boolean;
}
