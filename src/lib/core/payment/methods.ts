/**
 * What the till itself does when somebody pays; everything else about a way to pay is the vendor's
 * to say. `card` goes through the reader, `keyed` is typed in for somebody at a distance, `own` is
 * any way that happens elsewhere and is only noted: a terminal of its own, tokens of the fair. Nothing comes in by the last
 * six: `account` is owed by the customer, `credit`, `voucher` and `deposit` were paid in before (held/held-account.ts), and
 * `points` and `reward` are given by the vendor (core/points).
 */
export const METHODS = [
  'cash',
  'card',
  'keyed',
  'cheque',
  'transfer',
  'own',
  'account',
  'credit',
  'voucher',
  'deposit',
  'points',
  'reward',
] as const;
export type Method = (typeof METHODS)[number];

/** What goods that come back pay by (sale/exchange.ts). */
export const EXCHANGE = 'exchange';
export const EXCHANGE_NAME = 'Goods brought back';

/** How a part of a payment was paid: by a way, or with goods that came back. */
export const PAID_BY = [...METHODS, EXCHANGE] as const;
