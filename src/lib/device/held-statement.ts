/** What moved on accounts that somebody holds: this device's rows, and what is older from the server. */
import { z } from 'zod';
import { heldMove, salesByDoc, type HeldMove } from '../core/held/statement';
import type { Kind } from '../core/daybook/kinds';
import type { StatedAccount } from '../core/held/held-account';
import { isPointsOf, POINTS } from '../core/points/promotion-methods';
import { asAsked, customerIn, type Joined } from '../core/customer/joined';
import { sum } from '../core/money/units';
import { joinedIn } from './customer-records';
import type { DeviceDatabase } from './database';
import { standsOn } from './held-accounts';
import type { NotAnswered } from './sync/ask-server';
import type { Transport } from './sync/transport';

export interface HeldAccountsNow {
  /** What stands on each, in the order they were asked for; minor units. */
  readonly balances: readonly number[];
  readonly moves: readonly HeldMove[];
}

/**
 * As this device has it; what it let go of is not among the moves. Whose account it is has what moved on any of their
 * records, under the account that was asked for.
 */
export async function ownMoves(
  db: DeviceDatabase,
  accounts: readonly StatedAccount[],
): Promise<HeldAccountsNow> {
  const { books } = db;
  const joined = await joinedIn(
    db,
    accounts.flatMap((account) => customerIn(account) ?? []),
  );
  const askedAs = asAsked(accounts, joined);
  const [balances, rows] = await Promise.all([
    Promise.all(accounts.map((account) => balanceOf(db, account, joined))),
    books.heldMoves
      .where('account')
      .anyOf([...askedAs.keys()])
      .toArray(),
  ]);
  const of = (is: 'sale' | 'slip' | 'invoice'): string[] =>
    rows.flatMap(({ doc, docIs }) => (docIs === is ? doc : []));
  const [bySale, bySlip, named] = await Promise.all([
    books.sales.bulkGet(of('sale')),
    books.sales.where('slip').anyOf(of('slip')).toArray(),
    books.invoiceNumbers.bulkGet(of('invoice')),
  ]);
  const sales = salesByDoc([...bySale.filter((sale) => sale !== undefined), ...bySlip]);
  const numbers = new Map(
    named.flatMap((row) => (row === undefined ? [] : [[row.id, row.number]])),
  );
  return {
    balances,
    moves: rows.map((row) => ({
      ...heldMove(row, sales, numbers),
      account: askedAs.get(row.account) ?? row.account,
    })),
  };
}

/** Points that somebody has are owed to them: below nothing. */
async function balanceOf(
  db: DeviceDatabase,
  account: StatedAccount,
  joined: Joined,
): Promise<number> {
  if (!isPointsOf(account)) return await standsOn(db, account, joined);
  const rows = await db.books.pointSums.bulkGet(
    joined.accounts(account).map((each): [string, string] => [each, POINTS]),
  );
  return 0 - sum(rows.map((row) => row?.quantity ?? 0));
}

export const movesSchema = z.array(
  z.object({
    ...{ id: z.string(), account: z.string(), at: z.string() },
    // Also one that only a newer server knows: what it moved counts all the same.
    kind: z.custom<Kind>((kind) => typeof kind === 'string'),
    ...{ amount: z.number(), sale: z.string(), number: z.string() },
    invoice: z.string().default(''),
    pays: z.string().nullable().default(null),
  }),
);
const answerSchema = z.object({ moves: movesSchema });

/** What the server knows of any age. */
export interface OlderMoves {
  readonly moves: readonly HeldMove[];
  /** Why it has not said; null where it has, or was not asked yet. */
  readonly away: NotAnswered | null;
}
export const NONE_OLDER: OlderMoves = { moves: [], away: null };

/** Those of any age that the server knows. */
export async function olderMoves(
  transport: Transport,
  accounts: readonly StatedAccount[],
): Promise<OlderMoves> {
  const query = new URLSearchParams(accounts.map((account) => ['account', account]));
  const asked = await transport.ask(`/api/held?${query.toString()}`, answerSchema);
  return asked.came === 'answer'
    ? { moves: asked.answer.moves, away: null }
    : { moves: [], away: asked };
}

/** Its own, and beside them what the server knows that this device let go of. */
export const joinedMoves = (
  own: readonly HeldMove[],
  older: readonly HeldMove[],
): readonly HeldMove[] => {
  const known = new Set(own.map(({ id }) => id));
  return [...own, ...older.filter(({ id }) => !known.has(id))];
};
