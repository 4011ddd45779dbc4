/** What the judge finds wrong with an entry that can be read (docs/security.md has the table). */
import type { Right } from '../people/rights';

/** What somebody lacked. */
export interface Breach {
  readonly code: 'right/missing';
  readonly right: Right;
  readonly by: string | null;
}

/** What the books say against it. `found` and `wanted` are figures or ids for whoever looks at it. */
export interface Doubt {
  readonly code: DoubtCode;
  readonly found?: string | number;
  readonly wanted?: string | number;
}

export type Verdict = Breach | Doubt;

/**
 * What becomes of it. *Doubted*: goods or money have changed hands, so it counts and is a loose end.
 * *Barred*: nothing has, so it changes nothing, goes to no other device, and is a loose end.
 */
export type Effect = 'doubted' | 'barred';

export const EFFECT_OF = {
  'by/unknown': 'doubted',
  'clock/ahead': 'doubted',
  'device/number': 'doubted',
  'device/not-its-own': 'barred',
  'sale/number': 'doubted',
  'sale/event': 'doubted',
  'sale/day': 'doubted',
  'sale/line-price': 'doubted',
  'sale/line-extra': 'doubted',
  'sale/line-sum': 'doubted',
  'sale/line-cost': 'doubted',
  'sale/line-stock': 'doubted',
  'sale/line-maker': 'doubted',
  'sale/standing': 'doubted',
  'sale/service': 'doubted',
  'sale/uplift': 'doubted',
  'sale/tax': 'doubted',
  'sale/payments': 'doubted',
  'sale/paid-in': 'doubted',
  /** It brings more points than its goods do; points or a reward paid for what they do not count for; the taxes they lower. */
  'sale/points': 'doubted',
  'sale/promotions': 'doubted',
  'sale/lowered': 'doubted',
  /** One number was sold twice: by two devices out of touch, or from two packs of printed cards. */
  'sale/voucher-again': 'doubted',
  'sale/kept': 'doubted',
  'payment/account': 'doubted',
  /** Of an order that there is, at what was agreed; not called off, and not more than was ordered. */
  'sale/order': 'doubted',
  'sale/order-price': 'doubted',
  'sale/order-off': 'doubted',
  'sale/order-more': 'doubted',
  /** Records that there are not, of somebody who was forgotten, or joined in a circle. */
  'customer/unknown': 'barred',
  'customer/forgotten': 'barred',
  'customer/circle': 'barred',
  'order/unknown': 'barred',
  'order/customer': 'barred',
  'order/event': 'barred',
  'order/line': 'barred',
  'order/again': 'barred',
  'order/way': 'barred',
  'order/paid-again': 'barred',
  'order/paid-more': 'barred',
  /** Of something that there is not, was voided or called off, or is asked for already. */
  'invoice/unknown': 'barred',
  'invoice/voided': 'barred',
  'invoice/again': 'barred',
  /** To somebody else than who bought; on another day; headed otherwise than the business is. */
  'invoice/customer': 'barred',
  'invoice/day': 'barred',
  'invoice/vendor': 'barred',
  'invoice/tax': 'barred',
  'invoice/figures': 'barred',
  'invoice/credit-more': 'barred',
  'invoice/credit-what': 'barred',
  /** Another invoice has it, this one has another, or the server never gave it. */
  'invoice/number': 'barred',
  /** Only the server makes invoices of standing charges, and says what cards paid for them. */
  'server/only': 'barred',
  'charge/customer': 'barred',
  'charge/way': 'barred',
  'charge/tax': 'barred',
  'charge/past': 'barred',
  'charge/unknown': 'barred',
  'charge/again': 'barred',
  /** Of another wording than the vendor's; before its day; sent already. */
  'reminder/words': 'barred',
  'reminder/early': 'barred',
  'reminder/again': 'barred',
  'payment/voucher': 'doubted',
  'payment/purpose': 'doubted',
  /** For another amount than they are worth; they had run out; no such reward, or not then. */
  'payment/points': 'doubted',
  'payment/points-over': 'doubted',
  'payment/reward': 'doubted',
  /** Spent on two devices out of touch. */
  'points/overspent': 'doubted',
  'points/unknown': 'barred',
  'points/less': 'barred',
  'payment/over-limit': 'doubted',
  'held/overspent': 'doubted',
  'return/account': 'doubted',
  'voucher/unknown': 'barred',
  /** It can still be spent, or something else is left on it. */
  'voucher/not-over': 'barred',
  'payment/way': 'doubted',
  'payment/drawer': 'doubted',
  'payment/rounding': 'doubted',
  'payment/change': 'doubted',
  'payment/surcharge': 'doubted',
  'payment/charge': 'doubted',
  'card/not-asked': 'doubted',
  'card/other-amount': 'doubted',
  'card/carried': 'doubted',
  'card/other-device': 'barred',
  'card/unknown': 'barred',
  /** The acquirer, asked afterwards, has it otherwise. */
  'card/not-so': 'doubted',
  'hold/unknown': 'barred',
  'reversal/unknown': 'doubted',
  'reversal/figures': 'doubted',
  'reversal/again': 'doubted',
  /** The sale that it paid stands: it can only be voided, or goods come back. */
  'reversal/rung': 'doubted',
  /** Its figures do not add up: what they do not account for stands on an account of its own. */
  'journal/unexplained': 'doubted',
  'void/unknown': 'doubted',
  'void/figures': 'doubted',
  'void/again': 'doubted',
  'void/counted': 'doubted',
  /** The sale was not voided twice, or that void was taken back already. */
  'void/not-twice': 'barred',
  'return/unknown': 'doubted',
  'return/voided': 'doubted',
  /** More came back than was left of a line: two devices out of touch, each a part of it. */
  'return/more': 'doubted',
  'return/figures': 'doubted',
  'return/money': 'doubted',
  'return/drawer': 'doubted',
  /** By a way that did not pay for the sale. */
  'return/way': 'doubted',
  'return/number': 'doubted',
  /** More would go back to a card than it paid, or to one that did not pay. */
  'return/card': 'doubted',
  /** Money goes to a card under an id that something else goes by already. */
  'refund/again': 'barred',
  'refund/unknown': 'barred',
  'refund/not-so': 'barred',
  /** Some of the sale had come back: voided as well, that is given back twice. */
  'void/returned': 'doubted',
  'void/exchanged': 'doubted',
  'return/exchange': 'doubted',
  'refund/goods': 'doubted',
  'refund/limit': 'doubted',
  'refund/no-sale': 'doubted',
  'refund/more': 'doubted',
  'correct/unknown': 'doubted',
  'correct/voided': 'doubted',
  'correct/figures': 'doubted',
  'correct/not-so': 'doubted',
  'sale/exchange': 'doubted',
  'drawer/event': 'doubted',
  'stage/event': 'barred',
  /** Only `event.settled` settles an event. */
  'stage/not-settled-so': 'barred',
  /** More than the books owe. */
  'tips/not-so': 'barred',
  'paid/more': 'doubted',
  'money/more': 'barred',
  /** What came or was paid is not known, was of other figures, or was taken back already. */
  'money/unknown': 'barred',
  'money/figures': 'barred',
  'money/again': 'barred',
  /** An account or a line that there is not; more joined to a sum than it is. */
  'bank/account': 'barred',
  'bank/line': 'barred',
  'bank/more': 'barred',
  'handed/way': 'doubted',
  /** Said twice: by two taps, or by two people. */
  'handed/again': 'barred',
  /** Something has come since, or was not known where it was written. */
  'settled/heads': 'barred',
  'settled/balances': 'barred',
  'read/drawer': 'doubted',
  'read/number': 'doubted',
  'read/expected': 'doubted',
  'read/again': 'doubted',
  /** A drawer or bag that there is not, or that holds another amount. */
  'cash/drawer': 'doubted',
  'cash/bag': 'doubted',
  'drawer/not-late': 'barred',
  'stock/place': 'doubted',
  'stock/list': 'doubted',
  /** More has left for a list than was packed, or arrived than was sent. */
  'stock/list-twice': 'doubted',
  'stock/amount': 'doubted',
  'list/unknown': 'barred',
  'list/no-order': 'barred',
  'list/draft-mailed': 'barred',
  'count/unknown': 'barred',
  'count/place': 'barred',
  'count/figures': 'barred',
  'receipt/unknown-sale': 'barred',
  'looseEnd/own': 'barred',
} as const satisfies Readonly<Record<string, Effect>>;
export type DoubtCode = keyof typeof EFFECT_OF;
