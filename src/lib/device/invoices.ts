/** Invoices and credit notes, as this device knows them, and what is still to be paid of each. */
import type { Row } from '../core/books/tables';
import type { HeldAccount } from '../core/held/held-account';
import type { HeldMove } from '../core/held/statement';
import { invoicesNow, type InvoiceNow } from '../core/invoice/invoice-state';
import type { Joined } from '../core/customer/joined';
import { joinedIn, personOf } from './customer-records';
import type { DeviceDatabase } from './database';
import { joinedMoves, olderMoves, ownMoves, type OlderMoves } from './held-statement';
import type { Transport } from './sync/transport';

type Invoice = Row<'invoices'>;
type CustomerAccount = `customer:${string}` & HeldAccount;

export interface InvoicesHere {
  readonly invoices: readonly Invoice[];
  readonly numbers: ReadonlyMap<string, string>;
  readonly moves: readonly HeldMove[];
  readonly balances: ReadonlyMap<string, number>;
  readonly joined: Joined;
  /** Accounts of which this device does not have all that moved. */
  readonly unknown: readonly CustomerAccount[];
}

/** All of them, or those of a customer, whichever of their records they are to. */
export async function invoicesHere(db: DeviceDatabase, customer?: string): Promise<InvoicesHere> {
  const { books } = db;
  const person = customer === undefined ? null : await personOf(db, customer);
  const invoices =
    person === null
      ? await books.invoices.toArray()
      : await books.invoices
          .where('customer')
          .anyOf([...person.records])
          .toArray();
  const to = invoices.map((each) => each.customer);
  const joined = person?.joined ?? (await joinedIn(db, to));
  const people = [...new Set(to.map((id) => joined.of(id)))];
  const accounts = people.map((id): CustomerAccount => `customer:${id}`);
  const [numbers, { balances, moves }] = await Promise.all([
    numbersOf(db, invoices),
    ownMoves(db, accounts),
  ]);
  const moved = new Map<string, number>();
  for (const { account, amount } of moves) moved.set(account, (moved.get(account) ?? 0) + amount);
  const known = new Map(accounts.map((account, at) => [account, balances[at] ?? 0]));
  return {
    ...{ invoices, numbers, moves, balances: known, joined },
    unknown: accounts.filter((account) => (moved.get(account) ?? 0) !== known.get(account)),
  };
}

/** By invoice; those that the server has not given are missing. */
export async function numbersOf(
  { books }: DeviceDatabase,
  invoices: readonly Pick<Invoice, 'id'>[],
): Promise<ReadonlyMap<string, string>> {
  const rows = await books.invoiceNumbers.bulkGet(invoices.map(({ id }) => id));
  return new Map(rows.flatMap((row) => (row === undefined ? [] : [[row.id, row.number] as const])));
}

/** Accounts that one question to the server is about at most. */
const AT_ONCE = 40;

/** What moved on accounts before this device can know; nothing of it where a part of it did not come. */
export async function movesBefore(
  transport: Transport,
  accounts: readonly CustomerAccount[],
): Promise<OlderMoves> {
  const all: HeldMove[] = [];
  for (let at = 0; at < accounts.length; at += AT_ONCE) {
    const { moves, away } = await olderMoves(transport, accounts.slice(at, at + AT_ONCE));
    if (away !== null) return { moves: [], away };
    all.push(...moves);
  }
  return { moves: all, away: null };
}

/** How each stands. @param older What the server knows besides. */
export const howTheyStand = (
  { invoices, numbers, moves, balances, joined }: InvoicesHere,
  older: readonly HeldMove[],
  today: string,
  dayOf: (at: string) => string,
): readonly InvoiceNow[] =>
  invoicesNow({
    ...{ invoices, numbers, balances, joined, today, dayOf },
    moves: joinedMoves(moves, older),
  });

/** Those of a sale or an order, and credit notes of them. */
export async function madeOf(
  { books }: DeviceDatabase,
  source: string,
): Promise<readonly Invoice[]> {
  if (source === '') return [];
  const own = await books.invoices.where('source').equals(source).toArray();
  const credits = await books.invoices
    .where('credits')
    .anyOf(own.map(({ id }) => id))
    .toArray();
  return [...own, ...credits];
}
