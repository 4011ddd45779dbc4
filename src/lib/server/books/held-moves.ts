/** All that moved on accounts that somebody holds, of any age, with the sales it is of. */
import type { HeldMove } from '../../core/held/statement';
import { POINTS } from '../../core/points/promotion-methods';
import { asAsked, customerIn } from '../../core/customer/joined';
import { sum } from '../../core/money/units';
import { select } from '../database/select';
import { joinedAmong } from './customer-records';
import type { BookReader } from './read-books';

export interface HeldAnswer {
  /** What stands on each, in the order they were asked for; minor units. */
  readonly balances: readonly number[];
  readonly moves: readonly HeldMove[];
}

/** Of a part its sale is known by the slip, which may not be rung up yet. */
const MOVES = `SELECT m.id, m.account, m.at, m.kind, m.amount, m.pays,
  COALESCE(s.id, p.id, '') AS sale, IF(m.docIs = 'invoice', m.doc, '') AS invoice,
  COALESCE(s.number, p.number, n.number, '') AS number
  FROM books_held_moves m
  LEFT JOIN books_sales s ON m.docIs = 'sale' AND s.business = m.business AND s.id = m.doc
  LEFT JOIN books_sales p ON m.docIs = 'slip' AND p.business = m.business AND p.slip = m.doc
  LEFT JOIN books_invoice_numbers n ON m.docIs = 'invoice' AND n.business = m.business AND n.id = m.doc
  WHERE m.business = ? AND m.account IN (?)`;

/** Points that somebody has are owed to them: below nothing. */
const BALANCES = `SELECT account, amount FROM books_held_sums WHERE business = ? AND account IN (?)
  UNION ALL SELECT account, -quantity AS amount FROM books_point_sums
  WHERE business = ? AND account IN (?) AND item = '${POINTS}'`;

/** Whose account it is has what moved on any of their records, under the account that was asked for. */
export async function heldMovesOf(
  books: BookReader,
  business: string,
  accounts: readonly string[],
): Promise<HeldAnswer> {
  const { database } = books;
  const whose = accounts.flatMap((account) => customerIn(account) ?? []);
  return await database.snapshot(async (transaction) => {
    const joined = await joinedAmong(books, business, whose, transaction);
    const askedAs = asAsked(accounts, joined);
    const of = [business, [...askedAs.keys()]];
    const sums = await select<{ account: string; amount: string }>(
      database,
      BALANCES,
      [...of, ...of],
      transaction,
    );
    const rows = await select<HeldMove & { amount: string }>(database, MOVES, of, transaction);
    // A slip that was rung up twice has two sales: what moved did so once.
    const once = new Map(
      rows.map((row) => [
        row.id,
        { ...row, account: askedAs.get(row.account) ?? row.account, amount: Number(row.amount) },
      ]),
    );
    return {
      balances: accounts.map((asked) => {
        const all = joined.accounts(asked);
        return sum(sums.map(({ account, amount }) => (all.includes(account) ? Number(amount) : 0)));
      }),
      moves: [...once.values()],
    };
  });
}
