/** Settling: what the acquirer reported, what was joined by hand, who was paid, and what stood when it was settled. */
import type { BodyOf } from '../../daybook/kinds';
import { facts, flag, id, json, records, text, textOrNull, whole, word } from '../table-spec';
import { saidBy } from './said-by';

export const settlingTables = {
  /** Lines of acquirers' reports; their ids are made of whose report it is and what it calls the line. */
  cardLines: records(
    {
      set: {
        source: text(60),
        day: text(10),
        sort: word<BodyOf<'cards.reported'>['lines'][number]['sort']>(10),
        reference: text(80),
        amount: whole(),
        fee: whole(),
        scheme: text(20),
        last4: text(4),
        paidAt: text(35),
        payout: text(60),
        payoutDay: text(10),
      },
    },
    { indexes: ['reference', 'day', 'payout'], keep: 'server' },
  ),
  /** What somebody joined by hand, by the line. */
  cardJoins: records(
    { set: { payment: textOrNull(40), why: text(500) } },
    { indexes: ['payment'], keep: 'server' },
  ),
  moneyCame: facts(
    ['id'],
    {
      id: id(),
      ...saidBy,
      day: text(10),
      amount: whole(),
      fees: whole(),
      from: json<BodyOf<'money.came'>['from']>([]),
      payments: json<readonly string[]>([]),
      what: text(120),
    },
    { indexes: ['event', 'day'], keep: 'server' },
  ),
  tipShares: facts(
    ['id'],
    {
      id: id(),
      ...saidBy,
      how: word<BodyOf<'tips.shared'>['how']>(10),
      taken: json<BodyOf<'tips.shared'>['taken']>([]),
      shares: json<BodyOf<'tips.shared'>['shares']>([]),
    },
    { indexes: ['event'], keep: 'server' },
  ),
  paidOut: facts(
    ['id'],
    {
      id: id(),
      ...saidBy,
      for: word<BodyOf<'paid.out'>['for']>(10),
      whom: textOrNull(40),
      amount: whole(),
      from: text(10),
      what: text(120),
    },
    { indexes: ['event'], keep: 'server' },
  ),
  /** Statements that the server was asked to mail. */
  makerMails: facts(
    ['id'],
    { id: id(), ...saidBy, maker: text(40) },
    { indexes: ['event'], keep: 'server' },
  ),
  settledEvents: facts(
    ['id'],
    {
      id: id(),
      ...saidBy,
      stamp: text(60),
      balances: json<BodyOf<'event.settled'>['balances']>([]),
      heads: json<BodyOf<'event.settled'>['heads']>([]),
      leftOut: json<readonly string[]>([]),
      accepted: json<readonly string[]>([]),
      isAddendum: flag(),
      digest: text(64),
    },
    { indexes: ['event'], keep: 'server' },
  ),
} as const;
