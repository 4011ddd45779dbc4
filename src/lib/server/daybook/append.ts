/**
 * Appending to the daybook: one transaction puts a batch of entries into the order in which they
 * arrived and applies their changes to the books.
 *
 * Invariants: positions of a business are given while its counter is locked, so they are committed
 * in their order and a reader who has all up to n misses none. A device's entries are appended in
 * `seq` order, each once. What cannot be applied is kept and marked, and blocks nothing.
 */
import { setImmediate } from 'node:timers/promises';
import mysql from 'mysql2';
import type { Transaction } from 'sequelize';
import type { Change } from '../../core/books/change';
import { changesOf } from '../../core/books/changes';
import { chainFault, hashOf, headAfter, type ChainHead } from '../../core/daybook/chain';
import { CLOCK_AT_REST, clockOf } from '../../core/daybook/clock';
import type { Entry } from '../../core/daybook/entry';
import { readEntry, type EntryRead } from '../../core/daybook/read-entry';
import type { Kept, PushAnswer, PushRefusal } from '../../core/daybook/sync-messages';
import { isBarred, type Breach } from '../../core/people/judge';
import { applyChanges } from '../books/apply-changes';
import { databaseErrorNumber, type Database } from '../database/database';
import { select } from '../database/select';
import { asMayBeStored, eraseAll } from './erase';
import { breachesIn } from './judge-entries';
import { breachMessage, faultMessage, refusalMessage } from './messages';

export interface DeviceRef {
  readonly business: string;
  readonly device: string;
  /** An owner takes in what a device had not sent when it was shut out. */
  readonly isTakenIn?: boolean;
}

/** The device is not, or no longer, enrolled with the business. */
export class NotEnrolledError extends Error {
  constructor(readonly ref: DeviceRef) {
    super(`device ${ref.device} is not enrolled with business ${ref.business}`);
    this.name = 'NotEnrolledError';
  }
}

/**
 * What became of an entry: in the books; in them, though its writer lacked the right; kept out of
 * them for want of a right, and sent to nobody; or kept until a version can read it.
 */
type State = 'applied' | 'doubted' | 'barred' | 'kept';

interface Appended {
  readonly entry: Entry;
  readonly state: State;
  readonly changes: () => readonly Change[];
  readonly kept: Kept | null;
}

/**
 * Appends what is new in `entries`, which must be one device's, in `seq` order.
 * @returns What the server has of the device now; what it refused, if anything; what it kept.
 * @throws {NotEnrolledError} Nothing was appended then.
 */
export async function append(
  database: Database,
  ref: DeviceRef,
  entries: readonly Entry[],
): Promise<PushAnswer> {
  try {
    return await appendOnce(database, ref, entries, new Set());
  } catch (error) {
    if (!isBadData(error)) throw error;
    // A row that a column refused: find out which entry it was, keep that one, apply the others.
    const unfit = await unfitEntries(database, ref, entries);
    return await appendOnce(database, ref, entries, unfit);
  }
}

async function appendOnce(
  database: Database,
  ref: DeviceRef,
  entries: readonly Entry[],
  unfit: ReadonlySet<string>,
): Promise<PushAnswer> {
  return await database.transaction(async (transaction) => {
    const position = await lockCounter(database, ref.business, transaction);
    const head = await headOf(database, ref, transaction);
    const known = await knownHashes(database, ref, entries, head.seq, transaction);
    const { fresh, refused } = sift(entries, ref, head, known);
    const taken = await takenId(database, ref.business, fresh, transaction);
    const untaken = taken === null ? fresh : fresh.slice(0, fresh.indexOf(taken));
    const accepted = await asMayBeStored(database, ref.business, untaken, transaction);
    const reads = accepted.map((entry) => readEntry(entry));
    const readable = reads.flatMap((read) => (read.ok ? [read.entry] : []));
    const breaches = await breachesIn(database, ref.business, readable, transaction);
    const appended = accepted.map((entry, at) =>
      readyToApply(entry, reads[at]!, unfit, breaches.get(entry.id)),
    );
    if (appended.length > 0) {
      const storing = insertEntries(database, position, appended, transaction);
      // The database stores the entries while their changes are worked out. Both are waited for, or
      // one might go on in a transaction that the other one's failure has ended.
      const applying = setImmediate().then(async () => {
        const changes = appended.flatMap((each) => each.changes());
        await applyChanges(database.sequelize, ref.business, changes, transaction);
      });
      for (const outcome of await Promise.allSettled([storing, applying])) {
        if (outcome.status === 'rejected') throw outcome.reason;
      }
      const applied = appended.flatMap(({ entry, state }) => (state === 'applied' ? [entry] : []));
      await eraseAll(database, ref.business, applied, transaction);
      await moveOn(database, ref, position + appended.length, appended.at(-1)!.entry, transaction);
    }
    return {
      have: appended.at(-1)?.entry.seq ?? head.seq,
      refused: taken === null ? refused : refusal(taken.seq, 'entry/id-taken'),
      kept: appended.flatMap(({ kept }) => (kept === null ? [] : [kept])),
    };
  });
}

/** Splits a push into what is new and can follow, and the first thing that cannot. */
function sift(
  entries: readonly Entry[],
  ref: DeviceRef,
  stored: ChainHead,
  known: ReadonlyMap<number, string>,
): { fresh: Entry[]; refused: PushRefusal | null } {
  const fresh: Entry[] = [];
  let head = stored;
  for (const entry of entries) {
    const code = foreignness(entry, ref);
    if (code !== null) return { fresh, refused: refusal(entry.seq, code) };
    if (entry.seq <= stored.seq) {
      const isSame = known.get(entry.seq) === entry.hash && hashOf(entry) === entry.hash;
      if (isSame) continue;
      return { fresh, refused: refusal(entry.seq, 'chain/forked') };
    }
    const fault = chainFault(entry, head);
    if (fault !== null) return { fresh, refused: refusal(entry.seq, fault.code) };
    fresh.push(entry);
    head = headAfter(entry);
  }
  return { fresh, refused: null };
}

function foreignness(entry: Entry, ref: DeviceRef): PushRefusal['code'] | null {
  if (entry.business !== ref.business) return 'entry/other-business';
  return entry.device === ref.device ? null : 'entry/other-device';
}

const refusal = (seq: number, code: PushRefusal['code']): PushRefusal => ({
  seq,
  code,
  message: refusalMessage(code, seq),
});

const none = (): readonly Change[] => [];

function readyToApply(
  entry: Entry,
  read: EntryRead,
  unfit: ReadonlySet<string>,
  breach?: Breach,
): Appended {
  const keptAs = (state: State, code: string, message: string, changes = none): Appended => ({
    entry,
    state,
    changes,
    kept: { id: entry.id, code, message },
  });
  if (!read.ok) return keptAs('kept', read.fault.code, faultMessage(read.fault));
  if (unfit.has(entry.id)) {
    const message = 'The database refused its figures; the entry is kept as it was received.';
    return keptAs('kept', 'body/unfit', message);
  }
  const known = read.entry;
  const changes = (): readonly Change[] => changesOf(known);
  if (breach === undefined) return { entry, state: 'applied', changes, kept: null };
  if (isBarred(known)) return keptAs('barred', breach.code, breachMessage(known, breach));
  return keptAs('doubted', breach.code, breachMessage(known, breach), changes);
}

/** Tries each entry alone, in a transaction that is always undone. */
async function unfitEntries(
  { sequelize }: Database,
  ref: DeviceRef,
  entries: readonly Entry[],
): Promise<Set<string>> {
  const unfit = new Set<string>();
  for (const entry of entries) {
    const { changes } = readyToApply(entry, readEntry(entry), unfit);
    const transaction = await sequelize.transaction();
    try {
      await applyChanges(sequelize, ref.business, changes(), transaction);
    } catch (error) {
      if (!isBadData(error)) throw error;
      unfit.add(entry.id);
    } finally {
      await transaction.rollback();
    }
  }
  return unfit;
}

/** Nothing where there must be something, out of range, too long, not of the type, against a check. */
const BAD_DATA = new Set([1048, 1264, 1265, 1292, 1366, 1406, 1690, 4025]);
const isBadData = (error: unknown): boolean => BAD_DATA.has(databaseErrorNumber(error) ?? 0);

async function lockCounter(
  database: Database,
  business: string,
  transaction: Transaction,
): Promise<number> {
  const locked = 'SELECT position FROM daybook_counters WHERE business = ? FOR UPDATE';
  const [counter] = await select<{ position: string }>(database, locked, [business], transaction);
  if (counter !== undefined) return Number(counter.position);
  await database.sequelize.query(
    'INSERT INTO daybook_counters (business, position) VALUES (?, 0) ' +
      'ON DUPLICATE KEY UPDATE business = VALUES(business)',
    { replacements: [business], transaction },
  );
  const [made] = await select<{ position: string }>(database, locked, [business], transaction);
  return Number(made?.position ?? 0);
}

async function headOf(
  database: Database,
  ref: DeviceRef,
  transaction: Transaction,
): Promise<ChainHead> {
  const [row] = await select<{ seq: number; hash: string; stamp: string }>(
    database,
    'SELECT seq, hash, stamp FROM access_devices WHERE business = ? AND device = ? AND isShutOut <= ?',
    [ref.business, ref.device, ref.isTakenIn === true ? 1 : 0],
    transaction,
  );
  if (row === undefined) throw new NotEnrolledError(ref);
  const clock = row.stamp === '' ? CLOCK_AT_REST : clockOf(row.stamp);
  return { seq: row.seq, hash: row.hash, clock };
}

/** Hashes of those of the entries that are stored already, by `seq`. */
async function knownHashes(
  database: Database,
  ref: DeviceRef,
  entries: readonly Entry[],
  upTo: number,
  transaction: Transaction,
): Promise<Map<number, string>> {
  const seqs = entries.map(({ seq }) => seq).filter((seq) => seq <= upTo);
  if (seqs.length === 0) return new Map();
  const rows = await select<{ seq: number; hash: string }>(
    database,
    'SELECT seq, hash FROM daybook_entries WHERE business = ? AND device = ? AND seq IN (?)',
    [ref.business, ref.device, seqs],
    transaction,
  );
  return new Map(rows.map(({ seq, hash }) => [seq, hash]));
}

/** The first entry whose id stands for another one already, here or earlier in the same push. */
async function takenId(
  database: Database,
  business: string,
  entries: readonly Entry[],
  transaction: Transaction,
): Promise<Entry | null> {
  if (entries.length === 0) return null;
  const rows = await select<{ id: string }>(
    database,
    'SELECT id FROM daybook_entries WHERE business = ? AND id IN (?)',
    [business, entries.map(({ id }) => id)],
    transaction,
  );
  const taken = new Set(rows.map(({ id }) => id));
  for (const entry of entries) {
    if (taken.has(entry.id)) return entry;
    taken.add(entry.id);
  }
  return null;
}

async function insertEntries(
  { sequelize }: Database,
  after: number,
  appended: readonly Appended[],
  transaction: Transaction,
): Promise<void> {
  const rows = appended.map(({ entry, state, kept }, i) => {
    const fault = kept === null ? '' : JSON.stringify(kept).slice(0, 1000);
    const { business, id, device, seq, kind, event, stamp, hash } = entry;
    const values = [
      business,
      after + i + 1,
      id,
      device,
      seq,
      kind,
      event,
      stamp,
      hash,
      state,
      fault,
    ];
    return `(${[...values, JSON.stringify(entry)].map((value) => mysql.escape(value)).join(',')})`;
  });
  await sequelize.query(
    'INSERT INTO daybook_entries (business, position, id, device, seq, kind, event, stamp, hash, ' +
      `state, fault, entry) VALUES ${rows.join(',')}`,
    { transaction },
  );
}

async function moveOn(
  { sequelize }: Database,
  ref: DeviceRef,
  position: number,
  last: Entry,
  transaction: Transaction,
): Promise<void> {
  await sequelize.query('UPDATE daybook_counters SET position = ? WHERE business = ?', {
    replacements: [position, ref.business],
    transaction,
  });
  await sequelize.query(
    'UPDATE access_devices SET seq = ?, hash = ?, stamp = ? WHERE business = ? AND device = ?',
    { replacements: [last.seq, last.hash, last.stamp, ref.business, ref.device], transaction },
  );
}
