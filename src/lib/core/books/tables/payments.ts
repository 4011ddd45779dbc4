/** Parts of payments, the cards among them, and what was given back. */
import type { BodyOf } from '../../daybook/kinds';
import type { Signature } from '../../payment/signature';
import {
  facts,
  flag,
  id,
  json,
  records,
  text,
  textOrNull,
  whole,
  wholeOrNull,
  word,
} from '../table-spec';
import { saidBy } from './said-by';
import type { CardFacts } from './fields';

export const paymentTables = {
  payments: facts(
    ['id'],
    {
      id: id(),
      ...saidBy,
      slip: id(),
      way: text(40),
      wayName: text(80),
      method: word<BodyOf<'payment.taken'>['method']>(10),
      side: word<BodyOf<'payment.taken'>['side']>(4),
      drawer: textOrNull(40),
      clears: whole(),
      charge: whole(),
      surcharge: whole(),
      tip: whole(),
      change: whole(),
      rounding: whole(),
      reference: text(80),
      customer: textOrNull(40),
      share: wholeOrNull(),
      card: json<CardFacts | null>(null),
      held: json<BodyOf<'payment.taken'>['held'] | null>(null),
      promotion: json<BodyOf<'payment.taken'>['promotion'] | null>(null),
    },
    { indexes: ['event', 'slip'], keep: 'recent' },
  ),
  /** Card payments, each from being asked for to what became of it. The id is the payment's. */
  cardPayments: records(
    {
      asked: {
        slip: id(),
        way: text(40),
        ...saidBy,
        amount: whole(),
      },
      taken: {
        takenState: word<CardFacts['state'] | ''>(10),
        scheme: text(20),
        last4: text(4),
        clears: whole(),
        customer: textOrNull(40),
        sealed: text(4000),
        voice: text(12),
      },
      reversed: { isReversed: flag() },
      /** What becomes of money that is held: `capture`, `release` or nothing yet; by which entry, on which device. */
      decided: {
        decision: word<'capture' | 'release' | ''>(10),
        decidedAmount: whole(),
        decidedBy: text(40),
        decidedOn: text(40),
      },
      result: {
        state: word<BodyOf<'payment.result'>['state'] | 'authorised' | ''>(10),
        resultAmount: whole(),
        approval: text(12),
        acquirer: text(64),
        reason: text(120),
        expires: text(30),
        resultAt: text(30),
      },
    },
    {
      indexes: ['device', 'event', 'state', 'reason', 'reversedStamp', 'takenState'],
      keep: 'recent',
    },
  ),
  /** Money that goes back to cards because goods came back, and what became of it. */
  cardRefunds: records(
    {
      asked: { return: id(), payment: id(), way: text(40), ...saidBy, amount: whole() },
      result: {
        state: word<BodyOf<'refund.result'>['state'] | ''>(10),
        reason: text(120),
        resultAt: text(30),
      },
    },
    { indexes: ['device', 'event', 'state', 'payment'], keep: 'recent' },
  ),
  /** Who paid: what they drew, whose cheque it is; gone when the customer is forgotten. */
  payers: facts(
    ['id'],
    {
      /** The payment's. */
      id: id(),
      event: textOrNull(40),
      customer: textOrNull(40),
      name: text(80),
      strokes: json<Signature>([]),
    },
    { indexes: ['event', 'customer'], keep: 'recent' },
  ),
  /** Parts that were given back. */
  reversals: facts(
    ['id'],
    {
      id: id(),
      payment: id(),
      ...saidBy,
      slip: id(),
      amount: whole(),
      reason: text(200),
    },
    { indexes: ['payment', 'event'], keep: 'recent' },
  ),
} as const;
