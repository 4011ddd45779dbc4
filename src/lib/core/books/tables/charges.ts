/** Standing charges, and what became of charging cards for them (core/charge). */
import type { BodyOf } from '../../daybook/kinds';
import { facts, flag, id, json, records, text, textOrNull, whole, word } from '../table-spec';
import { saidBy } from './said-by';

type Set = BodyOf<'charge.set'>;

export const chargeTables = {
  charges: records(
    {
      set: {
        customer: text(40),
        lines: json<Set['lines']>([]),
        unit: word<Set['unit']>(5),
        every: whole(),
        from: text(10),
        notBefore: text(10),
        until: textOrNull(10),
        country: text(2),
        way: textOrNull(40),
        consent: textOrNull(8),
        isMailed: flag(),
        isActive: flag(),
        note: text(500),
        reference: text(40),
        ...saidBy,
      },
      /** The last day of it for which there is an invoice. */
      made: { upTo: text(10) },
    },
    { indexes: ['customer'] },
  ),
  /** Each time that a card was charged for one, or was to be again. */
  chargeCards: facts(
    ['id'],
    {
      id: id(),
      ...saidBy,
      is: word<'paid' | 'failed' | 'again'>(6),
      invoice: id(),
      charge: id(),
      customer: id(),
      payment: id(),
      amount: whole(),
      why: text(12),
      says: text(120),
      last4: text(4),
    },
    { indexes: ['invoice', 'charge'] },
  ),
} as const;
