/** All that moved on accounts that somebody holds, of any age, with the sales it is of. */
import { heldMove, salesByDoc, type HeldMove, type SaleName } from '../../core/held/statement';
import type { Database } from '../database/database';
import { select } from '../database/select';
import type { BookReader } from './read-books';

export interface HeldAnswer {
  /** What stands on each, in the order they were asked for; minor units. */
  readonly balances: readonly number[];
  readonly moves: readonly HeldMove[];
}

export async function heldMovesOf(
  database: Database,
  books: BookReader,
  business: string,
  accounts: readonly string[],
): Promise<HeldAnswer> {
  return await database.snapshot(async (transaction) => {
    const where = { account: [...accounts] };
    const sums = await books.rows(business, 'heldSums', where, transaction);
    const rows = await books.rows(business, 'heldMoves', where, transaction);
    const ofSale = rows.flatMap(({ doc, docIs }) => (docIs === 'sale' ? doc : []));
    const ofSlip = rows.flatMap(({ doc, docIs }) => (docIs === 'slip' ? doc : []));
    const sales = salesByDoc([
      ...(await numbersOf('id', ofSale)),
      ...(await numbersOf('slip', ofSlip)),
    ]);
    return {
      balances: accounts.map((each) => sums.find(({ account }) => account === each)?.amount ?? 0),
      moves: rows.map((row) => heldMove(row, sales)),
    };

    async function numbersOf(
      field: 'id' | 'slip',
      ids: readonly string[],
    ): Promise<readonly SaleName[]> {
      if (ids.length === 0) return [];
      return await select(
        database,
        `SELECT id, slip, number FROM books_sales WHERE business = ? AND ${field} IN (?)`,
        [business, [...new Set(ids)]],
        transaction,
      );
    }
  });
}
