/**
 * What the server itself writes: standing charges, and what cards paid for them. It has a daybook of its own for each
 * business, anew each time it is started: set back to an earlier day it goes on in one that no device knows yet, and
 * never writes something else under a number that they have read (docs/decisions/0039).
 */
import { randomUUID } from 'node:crypto';
import type { Transaction } from 'sequelize';
import {
  chainEntry,
  EMPTY_CHAIN,
  headAfter,
  type ChainHead,
  type Draft,
} from '../../core/daybook/chain';
import { clockOf, CLOCK_AT_REST } from '../../core/daybook/clock';
import type { Entry } from '../../core/daybook/entry';
import { outsideId } from '../../core/daybook/outside-id';
import type { Database } from '../database/database';
import { select } from '../database/select';
import { lockCounter, putDown } from './append';

/** This run of the server: one for each time that it opens the database. */
const runs = new WeakMap<Database, string>();

/** What the server wrote did not stand by its own books; nothing of it was written. */
export class OwnEntryError extends Error {
  constructor(kind: string, why: string) {
    super(`${kind}: ${why}`);
    this.name = 'OwnEntryError';
  }
}

/** By which its daybook of a business is known, in this run. */
export function ownDevice(database: Database, business: string): string {
  const run = runs.get(database) ?? randomUUID();
  runs.set(database, run);
  return outsideId(business, 'server', run);
}

/**
 * Decides what is to be written by the books as they stand, and writes it, in one transaction under the lock that
 * appending takes. Whatever else `decide` writes stands or falls with it.
 * @param now Milliseconds since 1970.
 * @returns The entries that were written.
 * @throws {OwnEntryError} If the books speak against one of them.
 */
export async function writeOwn(
  database: Database,
  business: string,
  now: number,
  decide: (transaction: Transaction) => Promise<readonly Draft[]>,
): Promise<readonly Entry[]> {
  return await database.transaction(async (transaction) => {
    const counter = await lockCounter(database, business, transaction);
    const drafts = await decide(transaction);
    if (drafts.length === 0) return [];
    const device = ownDevice(database, business);
    let head = await headOf(database, business, device, transaction);
    // It knows all that was accepted before.
    if (isBehind(head, counter)) head = { ...head, clock: counter.clock };
    const entries = drafts.map((draft) => {
      const entry = chainEntry(draft, head, { business, device, by: null, now });
      head = headAfter(entry);
      return entry;
    });
    const ref = { business, device, isServer: true };
    const { appended } = await putDown(
      { database, ref, counter, arrival: now, unfit: new Set() },
      entries,
      transaction,
    );
    const wrong = appended.find(({ state }) => state !== 'applied');
    if (wrong !== undefined)
      throw new OwnEntryError(wrong.entry.kind, wrong.kept?.message ?? wrong.state);
    await moveOn(database, business, entries.at(-1)!, transaction);
    return entries;
  });
}

const isBehind = ({ clock: own }: ChainHead, { clock }: Pick<ChainHead, 'clock'>): boolean =>
  own.millis < clock.millis || (own.millis === clock.millis && own.counter < clock.counter);

async function headOf(
  database: Database,
  business: string,
  device: string,
  transaction: Transaction,
): Promise<ChainHead> {
  const [row] = await select<{ seq: number; hash: string; stamp: string }>(
    database,
    'SELECT seq, hash, stamp FROM daybook_own WHERE business = ? AND device = ?',
    [business, device],
    transaction,
  );
  return row === undefined
    ? EMPTY_CHAIN
    : { ...row, clock: row.stamp === '' ? CLOCK_AT_REST : clockOf(row.stamp) };
}

async function moveOn(
  { sequelize }: Database,
  business: string,
  { device, seq, hash, stamp }: Entry,
  transaction: Transaction,
): Promise<void> {
  await sequelize.query(
    'INSERT INTO daybook_own (business, device, seq, hash, stamp) VALUES (?, ?, ?, ?, ?) ' +
      'ON DUPLICATE KEY UPDATE seq = VALUES(seq), hash = VALUES(hash), stamp = VALUES(stamp)',
    { replacements: [business, device, seq, hash, stamp], transaction },
  );
}
