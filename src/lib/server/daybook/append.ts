/**
 * Appending to the daybook: one transaction puts a batch of entries into the order in which they
 * arrived, judges them and applies their changes to the books.
 *
 * Invariants: positions of a business are given while its counter is locked, so they are committed
 * in their order and a reader who has all up to n misses none. A device's entries are appended in
 * `seq` order, each once. A stamp that is ahead of arrival is held to it, after all that was accepted
 * before. What cannot be applied is kept and marked, and blocks nothing.
 */
import mysql from 'mysql2';
import { QueryTypes, type Transaction } from 'sequelize';
import {
  contentFault,
  hashOf,
  linkFault,
  headAfter,
  type ChainHead,
} from '../../core/daybook/chain';
import {
  CLOCK_AT_REST,
  clockOf,
  FURTHEST_AHEAD,
  stampOf,
  tick,
  type Clock,
} from '../../core/daybook/clock';
import type { Change } from '../../core/books/change';
import type { Entry } from '../../core/daybook/entry';
import { isTooLarge } from '../../core/daybook/entry-size';
import type { PushAnswer, PushRefusal } from '../../core/daybook/sync-messages';
import type { Evidence } from '../../core/judging/evidence';
import { becomes, changesIn } from '../../core/judging/becomes';
import { personIn } from '../../core/customer/erased';
import { applyChanges, noteNames, statementsOf } from '../books/apply-changes';
import { BookReader } from '../books/read-books';
import { databaseErrorNumber, isOfDatabase, type Database } from '../database/database';
import { OneAfterAnother } from '../database/one-after-another';
import { select } from '../database/select';
import type { DeviceRef } from './device-ref';
import { asMayBeStored, eraseAll } from './erase';
import { textOf } from './entry-text';
import { judged, type Appended } from './judged';
import { asFault } from './kept';
import { refusalMessage } from '../words/entry-words';
import { queueBehind } from './queue-behind';
import { checkQuota, countAgainstQuota, countedOn } from './quotas';
import { sha256 } from '../sha-256';

/** The device is not, or no longer, enrolled with the business. */
export class NotEnrolledError extends Error {
  constructor(readonly ref: DeviceRef) {
    super(`device ${ref.device} is not enrolled with business ${ref.business}`);
    this.name = 'NotEnrolledError';
  }
}

/**
 * Appends what is new in `entries`, which must be one device's, in `seq` order.
 * @param arrival Milliseconds since 1970.
 * @returns What the server has of the device now; what it refused, if anything; what it kept.
 * @throws {NotEnrolledError} Nothing was appended then.
 * @throws {OverQuotaError} The device has sent too much for one day; nothing was appended.
 */
export async function append(
  database: Database,
  ref: DeviceRef,
  entries: readonly Entry[],
  arrival: number = Date.now(),
): Promise<PushAnswer> {
  try {
    return await appendOnce(database, ref, entries, arrival, new Set());
  } catch (error) {
    if (!isBadData(error)) throw error;
    // A row that a column refused: find out which entry it was, keep that one, apply the others.
    const unfit = await unfitEntries(database, ref, entries);
    return await appendOnce(database, ref, entries, arrival, unfit);
  }
}

async function appendOnce(
  database: Database,
  ref: DeviceRef,
  entries: readonly Entry[],
  arrival: number,
  unfit: ReadonlySet<string>,
): Promise<PushAnswer> {
  return await database.transaction(async (transaction) => {
    const counter = await lockCounter(database, ref.business, transaction);
    const [head, ids, counted] = await Promise.all([
      headOf(database, ref, transaction),
      idsAmong(database, ref.business, entries, transaction),
      countedOn(database, ref, arrival, transaction),
    ]);
    const stored = await storedAmong(database, ref, entries, head.seq, transaction);
    const { fresh, refused } = sift(entries, ref, head, stored);
    const taken = takenAmong(fresh, ids);
    const untaken = taken === null ? fresh : fresh.slice(0, fresh.indexOf(taken));
    const sizes = ref.isTakenIn === true ? [] : untaken.map((each) => textOf(each).length);
    checkQuota(counted, sizes);
    const isSound = (at: number): boolean => unsound(untaken[at]!) === null;
    const { accepted, appended } = await putDown(
      { database, ref, counter, arrival, unfit, isSound },
      untaken,
      transaction,
    );
    const toCount = sizes.slice(0, accepted.length);
    await countAgainstQuota(database, ref, toCount, arrival, transaction);
    const wrong = untaken[appended.length];
    const takenOrRefused = taken === null ? refused : refusal(taken.seq, 'entry/id-taken');
    return {
      have: appended.at(-1)?.entry.seq ?? head.seq,
      refused:
        wrong === undefined
          ? takenOrRefused
          : refusal(wrong.seq, unsound(wrong) ?? 'chain/hash-wrong'),
      kept: appended.flatMap(({ kept }) => (kept === null ? [] : [kept])),
      held: [
        ...entries.flatMap(({ id, seq }) => {
          const held = stored.get(seq)?.held ?? '';
          return held === '' ? [] : [{ id, stamp: held }];
        }),
        ...accepted.flatMap(({ id, held }) => (held === undefined ? [] : [{ id, stamp: held }])),
      ],
      now: arrival,
    };
  });
}

interface PuttingDown {
  readonly database: Database;
  readonly ref: DeviceRef;
  /** Of the business, which is locked. */
  readonly counter: Counter;
  readonly arrival: number;
  readonly unfit: ReadonlySet<string>;
  /** Whether one of the entries holds what its hashes say; nothing from one on that does not is put down. */
  readonly isSound?: (at: number) => boolean;
}

/** Judges what follows, stores it and applies its changes, under the lock. */
export async function putDown(
  { database, ref, counter, arrival, unfit, isSound = () => true }: PuttingDown,
  entries: readonly Entry[],
  transaction: Transaction,
): Promise<{ readonly accepted: readonly Entry[]; readonly appended: readonly Appended[] }> {
  const { sequelize } = database;
  const { business } = ref;
  const bare = await asMayBeStored(database, business, entries, transaction);
  const held = heldToArrival(bare, counter.clock, arrival);
  const gathering = { database, books: new BookReader(database), business, transaction };
  const storing = new OneAfterAnother();
  // What is sent is written out while the database works at what was sent before.
  const send = (statements: readonly string[]): void => {
    storing.add(async () => {
      // Of their kind: where it is not said, all of each statement is looked through for it, four times.
      for (const statement of statements)
        await sequelize.query(statement, { type: QueryTypes.INSERT, transaction });
    });
  };
  let { position } = counter;
  const store = (part: readonly Appended[]): void => {
    const facts = changesOf(part, (change) => change.op === 'put');
    send([entriesSql(position, part), ...statementsOf(business, facts)]);
    position += part.length;
  };
  const judging = { entries: held.accepted, ref, arrival, unfit, isSound, store };
  const { appended, evidence } = await judged(gathering, judging).catch(async (error: unknown) => {
    // Why the transaction has failed is what is to be heard of.
    await storing.end();
    throw error;
  });
  // What all of them add to the same rows is added once.
  send(
    statementsOf(
      business,
      changesOf(appended, (change) => change.op !== 'put'),
    ),
  );
  await storing.end();
  const accepted = held.accepted.slice(0, appended.length);
  if (appended.length > 0) {
    const names = changesOf(appended, (change) => change.op === 'put');
    await noteNames(sequelize, business, names, transaction);
    const applied = appended.flatMap(({ entry, state }) => (state === 'applied' ? [entry] : []));
    await eraseAll(database, business, applied, transaction);
    await queueBehind(database, appended, arrival, transaction);
    const { clock } =
      accepted.length === bare.length
        ? held
        : heldToArrival(bare.slice(0, accepted.length), counter.clock, arrival);
    await moveOn(database, ref, { position, clock, evidence }, accepted.at(-1)!, transaction);
  }
  return { accepted, appended };
}

const changesOf = (
  appended: readonly Appended[],
  which: (change: Change) => boolean,
): readonly Change[] => appended.flatMap(({ changes }) => changes.filter(which));

/**
 * Entries whose stamps are further ahead of arrival than clocks differ are held to it: they come after all
 * that was accepted before, and before all that is written from now on.
 */
function heldToArrival(
  entries: readonly Entry[],
  accepted: Clock,
  arrival: number,
): { readonly accepted: readonly Entry[]; readonly clock: Clock } {
  let clock = accepted;
  const all = entries.map((arrived): Entry => {
    const entry = asWritten(arrived);
    const own = clockOf(entry.stamp);
    if (own.millis <= arrival + FURTHEST_AHEAD) {
      if (own.millis > clock.millis || (own.millis === clock.millis && own.counter > clock.counter))
        clock = own;
      return entry;
    }
    clock = tick(clock, arrival);
    return { ...entry, held: stampOf(clock, entry.device) };
  });
  return { accepted: all, clock };
}

/** Without what is ours to say: what it was held to, and that it was late. */
function asWritten(entry: Entry): Entry {
  if (entry.held === undefined && entry.late === undefined) return entry;
  const { held: _held, late: _late, ...written } = entry;
  return written;
}

/** Splits a push into what is new and can follow, and the first thing that cannot. */
function sift(
  entries: readonly Entry[],
  ref: DeviceRef,
  known: ChainHead,
  stored: ReadonlyMap<number, Stored>,
): { fresh: Entry[]; refused: PushRefusal | null } {
  const fresh: Entry[] = [];
  let head = known;
  for (const entry of entries) {
    const code = foreignness(entry, ref);
    if (code !== null) return { fresh, refused: refusal(entry.seq, code) };
    const fault = standing(entry, known, stored, head);
    if (fault === 'stored') continue;
    if (fault !== null) return { fresh, refused: refusal(entry.seq, fault) };
    fresh.push(entry);
    head = headAfter(entry);
  }
  return { fresh, refused: null };
}

/** Why an entry cannot follow; `stored` if it is here already. */
function standing(
  entry: Entry,
  known: ChainHead,
  stored: ReadonlyMap<number, Stored>,
  head: ChainHead,
): PushRefusal['code'] | 'stored' | null {
  try {
    if (entry.seq <= known.seq) {
      const isSame = stored.get(entry.seq)?.hash === entry.hash && hashOf(entry) === entry.hash;
      return isSame ? 'stored' : 'chain/forked';
    }
    if (isTooLarge(entry, textOf(entry))) return 'entry/too-large';
    return linkFault(entry, head)?.code ?? null;
  } catch {
    return 'chain/hash-wrong';
  }
}

/** Why what it holds is not what its writer hashed, or null. */
function unsound(entry: Entry): PushRefusal['code'] | null {
  try {
    return contentFault(entry, sha256)?.code ?? null;
  } catch {
    // It has no canonical JSON: half a character, a number beyond all numbers, a nesting without end.
    return 'chain/hash-wrong';
  }
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

/** Tries each entry alone, in a transaction that is always undone. */
async function unfitEntries(
  { sequelize }: Database,
  ref: DeviceRef,
  entries: readonly Entry[],
): Promise<Set<string>> {
  const unfit = new Set<string>();
  for (const entry of entries) {
    const changes = changesIn(becomes(entry, { evidence: null }));
    const transaction = await sequelize.transaction();
    try {
      await applyChanges(sequelize, ref.business, changes, transaction);
    } catch (error) {
      if (isOfDatabase(error) && !isBadData(error)) throw error;
      unfit.add(entry.id);
    } finally {
      await transaction.rollback();
    }
  }
  return unfit;
}

/** Nothing where there must be something, out of range, too long, not of the type, against a check. */
const BAD_DATA = new Set([1048, 1264, 1265, 1292, 1366, 1406, 1690, 4025]);
export const isBadData = (error: unknown): boolean => BAD_DATA.has(databaseErrorNumber(error) ?? 0);

/** Where a business's daybook stands: its last position, and the latest stamp that counts. */
export interface Counter {
  readonly position: number;
  readonly clock: Clock;
}

/** Locks the counter of a business: whoever has it appends alone. */
export async function lockCounter(
  database: Pick<Database, 'sequelize'>,
  business: string,
  transaction: Transaction,
): Promise<Counter> {
  const locked = 'SELECT position, clock FROM daybook_counters WHERE business = ? FOR UPDATE';
  const read = async (): Promise<Counter | null> => {
    const rows = await select<{ position: string; clock: string }>(
      database,
      locked,
      [business],
      transaction,
    );
    const [row] = rows;
    if (row === undefined) return null;
    const clock = row.clock === '' ? CLOCK_AT_REST : clockOf(row.clock);
    return { position: Number(row.position), clock };
  };
  const known = await read();
  if (known !== null) return known;
  await database.sequelize.query(
    'INSERT INTO daybook_counters (business, position) VALUES (?, 0) ' +
      'ON DUPLICATE KEY UPDATE business = VALUES(business)',
    { replacements: [business], transaction },
  );
  return (await read()) ?? { position: 0, clock: CLOCK_AT_REST };
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

interface Stored {
  readonly hash: string;
  readonly held: string;
}

/** Those of the entries that are stored already, by `seq`. */
async function storedAmong(
  database: Database,
  ref: DeviceRef,
  entries: readonly Entry[],
  upTo: number,
  transaction: Transaction,
): Promise<ReadonlyMap<number, Stored>> {
  const seqs = entries.map(({ seq }) => seq).filter((seq) => seq <= upTo);
  if (seqs.length === 0) return new Map();
  const rows = await select<Stored & { seq: number }>(
    database,
    'SELECT seq, hash, held FROM daybook_entries WHERE business = ? AND device = ? AND seq IN (?)',
    [ref.business, ref.device, seqs],
    transaction,
  );
  return new Map(rows.map((row) => [row.seq, row]));
}

/** Ids of the entries that stand for an entry already. */
async function idsAmong(
  database: Database,
  business: string,
  entries: readonly Entry[],
  transaction: Transaction,
): Promise<ReadonlySet<string>> {
  if (entries.length === 0) return new Set();
  const rows = await select<{ id: string }>(
    database,
    'SELECT id FROM daybook_entries WHERE business = ? AND id IN (?)',
    [business, entries.map(({ id }) => id)],
    transaction,
  );
  return new Set(rows.map(({ id }) => id));
}

/** The first entry whose id stands for another one already, or earlier in the same push. */
function takenAmong(entries: readonly Entry[], ids: ReadonlySet<string>): Entry | null {
  const taken = new Set(ids);
  for (const entry of entries) {
    if (taken.has(entry.id)) return entry;
    taken.add(entry.id);
  }
  return null;
}

/** Puts entries into the daybook, behind a position. */
function entriesSql(after: number, appended: readonly Appended[]): string {
  const rows = appended.map(({ entry, state, kept }, i) => {
    const { business, id, device, seq, kind, event, stamp, hash, held = '' } = entry;
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
      asFault(kept),
      held,
      personIn(entry),
    ];
    // What it was held to stands beside it; the entry is kept word for word.
    const text = textOf(asWritten(entry));
    return `(${[...values, text].map((value) => mysql.escape(value)).join(',')})`;
  });
  return (
    'INSERT INTO daybook_entries (business, position, id, device, seq, kind, event, stamp, hash, ' +
    `state, fault, held, person, entry) VALUES ${rows.join(',')}`
  );
}

async function moveOn(
  { sequelize }: Database,
  ref: DeviceRef,
  { position, clock, evidence }: Counter & { readonly evidence: Evidence | null },
  last: Entry,
  transaction: Transaction,
): Promise<void> {
  // Nobody's stamp is this one; it only says how far the clock has come.
  await sequelize.query('UPDATE daybook_counters SET position = ?, clock = ? WHERE business = ?', {
    replacements: [position, stampOf(clock, NOBODYS), ref.business],
    transaction,
  });
  // How far it is itself stands with its own (own-daybook.ts).
  if (ref.isServer === true) return;
  const { lastSale = null, lastRead = null } = evidence?.device ?? {};
  await sequelize.query(
    'UPDATE access_devices SET seq = ?, hash = ?, stamp = ?, lastSale = ?, lastRead = ? ' +
      'WHERE business = ? AND device = ?',
    {
      replacements: [last.seq, last.hash, last.stamp, lastSale, lastRead, ref.business, ref.device],
      transaction,
    },
  );
}

const NOBODYS = '0'.repeat(8);
