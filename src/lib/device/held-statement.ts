/** What moved on accounts that somebody holds: this device's rows, and what is older from the server. */
import { z } from 'zod';
import { heldMove, salesByDoc, type HeldMove } from '../core/held/statement';
import type { StatedAccount } from '../core/held/held-account';
import { isPointsOf, POINTS } from '../core/points/promotion-methods';
import type { DeviceDatabase } from './database';
import type { Transport } from './sync/transport';

export interface HeldAccountsNow {
  /** What stands on each, in the order they were asked for; minor units. */
  readonly balances: readonly number[];
  readonly moves: readonly HeldMove[];
}

/** As this device has it; what it let go of is not among the moves. */
export async function ownMoves(
  { books }: DeviceDatabase,
  accounts: readonly StatedAccount[],
): Promise<HeldAccountsNow> {
  const [balances, rows] = await Promise.all([
    Promise.all(accounts.map((account) => standsOn(books, account))),
    books.heldMoves
      .where('account')
      .anyOf([...accounts])
      .toArray(),
  ]);
  const of = (is: 'sale' | 'slip'): string[] =>
    rows.flatMap(({ doc, docIs }) => (docIs === is ? doc : []));
  const [bySale, bySlip] = await Promise.all([
    books.sales.bulkGet(of('sale')),
    books.sales.where('slip').anyOf(of('slip')).toArray(),
  ]);
  const sales = salesByDoc([...bySale.filter((sale) => sale !== undefined), ...bySlip]);
  return {
    balances,
    moves: rows.map((row) => heldMove(row, sales)),
  };
}

/** Points that somebody has are owed to them: below nothing. */
async function standsOn(books: DeviceDatabase['books'], account: StatedAccount): Promise<number> {
  if (!isPointsOf(account)) return (await books.heldSums.get(account))?.amount ?? 0;
  return 0 - ((await books.pointSums.get([account, POINTS]))?.quantity ?? 0);
}

const answerSchema = z.object({
  moves: z.array(
    z.object({
      ...{ id: z.string(), account: z.string(), at: z.string(), kind: z.string() },
      ...{ amount: z.number(), sale: z.string(), number: z.string() },
      pays: z.string().nullable().default(null),
    }),
  ),
});

/** Those of any age that the server knows; null with no network. */
export async function olderMoves(
  transport: Transport,
  accounts: readonly StatedAccount[],
): Promise<readonly HeldMove[] | null> {
  const query = new URLSearchParams(accounts.map((account) => ['account', account]));
  const asked = await transport.ask(`/api/held?${query.toString()}`, answerSchema);
  return asked.came === 'answer' ? (asked.answer.moves as readonly HeldMove[]) : null;
}

/** Its own, and beside them what the server knows that this device let go of. */
export const joinedMoves = (
  own: readonly HeldMove[],
  older: readonly HeldMove[],
): readonly HeldMove[] => {
  const known = new Set(own.map(({ id }) => id));
  return [...own, ...older.filter(({ id }) => !known.has(id))];
};
