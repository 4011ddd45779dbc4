/** Accounts that somebody holds: what stands on each, what moved it, and vouchers (core/held). */
import type { Kind } from '../../daybook/kinds';
import { sumsBy } from '../sum-tables';
import type { KeptTax } from '../../held/one-purpose';
import { facts, flag, id, json, records, text, textOrNull, whole, word } from '../table-spec';
import { saidBy } from './said-by';

export const heldTables = {
  /** Credits are below nothing: what is owed to whoever holds it. */
  heldSums: sumsBy('heldSums', { account: text(60) }),
  heldMoves: facts(
    ['id'],
    {
      id: text(44),
      ...saidBy,
      account: text(60),
      amount: whole(),
      kind: word<Kind>(24),
      doc: id(),
      docIs: word<'sale' | 'slip' | 'invoice' | 'own'>(7),
      /** The sale or invoice whose debt it pays before older ones. */
      pays: textOrNull(40),
    },
    { indexes: ['account', 'at'], keep: 'recent' },
  ),
  /** Each time that a voucher was sold or made; of one number there should be one. */
  vouchers: facts(
    ['id'],
    {
      id: text(44),
      ...saidBy,
      number: text(40),
      value: whole(),
      until: text(10),
      /** The tax that it was sold with, where it is for goods of that tax alone. */
      kept: json<KeptTax | null>(null),
      /** Null for one that was made in another's place. */
      sale: textOrNull(40),
      saleNumber: text(20),
      customer: textOrNull(40),
    },
    { indexes: ['number'] },
  ),
  /** What was said of a voucher since, by its number. */
  voucherStates: records({
    set: { isBlocked: flag(), until: text(10), reason: text(200) },
  }),
} as const;
