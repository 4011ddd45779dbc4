/** What was agreed with customers: quotes, goods that are kept for them, orders to collect (core/order). */
import type { BodyOf } from '../../daybook/kinds';
import { sumsBy } from '../sum-tables';
import { facts, id, json, records, text, textOrNull, whole, word } from '../table-spec';
import { saidBy } from './said-by';

export const orderTables = {
  orders: records(
    {
      set: {
        number: text(40),
        source: text(40),
        customer: text(40),
        lines: json<BodyOf<'order.set'>['lines']>([]),
        standingName: text(80),
        ...saidBy,
      },
      terms: {
        sort: word<BodyOf<'order.terms'>['sort']>(8),
        deposit: whole(),
        collectAt: textOrNull(40),
        place: textOrNull(40),
        until: text(10),
        note: text(500),
      },
      stage: { stage: word<BodyOf<'order.stage'>['stage']>(8), reason: text(200) },
    },
    { indexes: ['customer', 'collectAt'] },
  ),
  /** How much of each line was handed over, by sales. */
  orderSums: sumsBy('orderSums', { order: id(), line: id() }, { indexes: ['order'] }),
  /** What was paid for an order where it was made. */
  ordersPaid: facts(
    ['id'],
    {
      id: id(),
      ...saidBy,
      order: id(),
      way: text(40),
      amount: whole(),
      reference: text(80),
    },
    { indexes: ['order'] },
  ),
} as const;
