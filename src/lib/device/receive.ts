/**
 * Taking in what others wrote. Each entry is applied exactly once: a device's entries arrive in
 * their order, and what was applied of each device is noted in the same transaction.
 */
import type { Change } from '../core/books/change';
import { erasedBy } from '../core/customer/erased';
import { CLOCK_AT_REST, follow } from '../core/daybook/clock';
import type { Entry } from '../core/daybook/entry';
import type { Kind } from '../core/daybook/kinds';
import type { BodyFault } from '../core/daybook/read-entry';
import type { TriedAgain } from '../core/daybook/sync-messages';
import { becomes, changesIn } from '../core/judging/becomes';
import { applyChanges, touchedBy } from './apply-changes';
import type { DeviceDatabase, KeptRow, Standing } from './database';
import { erasePrivate, personalTables } from './erase';

export const NO_STANDING: Standing = { sent: 0, position: 0, received: {}, clock: CLOCK_AT_REST };

/** Entries of others, and the position up to which all are now known. */
export interface Arrival {
  readonly entries: readonly Entry[];
  readonly position: number;
  /** What the server calls that position by; see `markOf` there. */
  readonly mark?: string;
  /** Entries that are handed out to nobody, so that no number is missing. */
  readonly passed?: readonly { readonly device: string; readonly seq: number }[];
}

/** A number is missing: entries of that device which came before this one have not arrived. */
export class MissingEntryError extends Error {
  constructor(
    readonly device: string,
    readonly seq: number,
  ) {
    super(`what device ${device} wrote before ${String(seq)} has not arrived`);
    this.name = 'MissingEntryError';
  }
}

/**
 * Applies an arrival, all of it or nothing. What is new is decided within the transaction, so that two windows
 * that take in the same do it once.
 * @param isStrict Whether a missing number is refused; without, all that came is taken.
 * @returns How many entries were new.
 * @throws {MissingEntryError} Nothing was taken in.
 */
export async function receive(
  db: DeviceDatabase,
  own: string,
  { entries, position, mark, passed = [] }: Arrival,
  isStrict = true,
): Promise<number> {
  const others = entries.filter(({ device }) => device !== own);
  const read = new Map(others.map((entry) => [entry.id, reading(entry)]));
  const books = touchedBy([...read.values()].flatMap(({ changes }) => changes));
  const touched = [db.meta, ...personalTables(db)];
  return await db.transaction(
    'rw',
    [...touched, ...books.map((table) => db.table(table))],
    async () => {
      const current = (await db.read('standing')) ?? NO_STANDING;
      const { fresh, received, late } = newAmong(others, passed, current, isStrict);
      const again = await madeAgain(db, fresh);
      const news = fresh.filter(({ id }) => !again.has(id));
      const taken = news.flatMap(({ id }) => read.get(id) ?? []);
      // The server holds stamps that are ahead of it, so whatever comes from it can be followed: what is
      // written here next is later than all that is known here.
      const clock = fresh.reduce((at, { held, stamp }) => follow(at, held ?? stamp), current.clock);
      const erased = erasedBy(fresh);
      const said = mark === undefined ? {} : { mark };
      await Promise.all([
        news.length === 0 ? undefined : db.received.add({ upTo: position, entries: news }),
        db.kept.bulkPut(taken.flatMap(({ kept }) => kept ?? [])),
        db.write('standing', { ...current, ...said, position, received, clock, late }),
        applyChanges(
          db,
          taken.flatMap(({ changes }) => changes),
        ),
      ]);
      if (erased.length > 0) await erasePrivate(db, erased);
      return fresh.length;
    },
  );
}

/**
 * What the server wrote again, in another daybook, since it was set back to an earlier day: it has the ids that it had
 * (server/charges/charge-ids.ts), and what it moved has been moved here.
 */
async function madeAgain(
  db: DeviceDatabase,
  fresh: readonly Entry[],
): Promise<ReadonlySet<string>> {
  const ids = (kind: Kind): string[] =>
    fresh.flatMap((entry) => (entry.kind === kind ? entry.id : []));
  const [invoices, paid] = [ids('invoice.made'), ids('charge.paid')];
  // Tables that nothing of it touches are not part of the transaction.
  const known = [
    ...(invoices.length === 0 ? [] : await db.books.invoices.bulkGet(invoices)),
    ...(paid.length === 0 ? [] : await db.books.chargeCards.bulkGet(paid)),
  ];
  const rows = new Set(known.flatMap((row) => row?.id ?? []));
  const taken = new Set<string>();
  // A row alone says nothing: a device that begins is given rows that are newer than its sums.
  if (rows.size > 0)
    await db.received.each(({ entries }) => {
      for (const { id } of entries) if (rows.has(id)) taken.add(id);
    });
  return taken;
}

/** What of it has not been taken in yet, and what has been, with it. */
function newAmong(
  entries: readonly Entry[],
  passed: NonNullable<Arrival['passed']>,
  standing: Standing,
  isStrict: boolean,
) {
  const received = { ...standing.received };
  const late = new Set(standing.late);
  const passedBy = new Set(passed.map(({ device, seq }) => `${device} ${String(seq)}`));
  const passOver = (device: string): void => {
    while (passedBy.has(`${device} ${String((received[device] ?? 0) + 1)}`))
      received[device] = (received[device] ?? 0) + 1;
  };
  const fresh = entries.filter((entry) => {
    const { id, device, seq } = entry;
    const known = received[device] ?? 0;
    if (seq <= known) {
      // What comes after entries that followed it is told by its id and not by its number.
      if (entry.late !== true || late.has(id)) return false;
      late.add(id);
      return true;
    }
    passOver(device);
    if (isStrict && seq !== (received[device] ?? 0) + 1) throw new MissingEntryError(device, seq);
    received[device] = seq;
    return true;
  });
  for (const { device } of passed) passOver(device);
  return { fresh, received, late: [...late] };
}

/** Tries again what an older version had to keep. @returns How many could be applied now. */
export async function applyKept(db: DeviceDatabase): Promise<number> {
  return await db.transaction('rw', db.tables, async () => {
    const waiting = (await db.kept.toArray()).flatMap(({ entry }) => entry ?? []);
    const done = waiting.map(reading).filter(({ kept }) => kept === null);
    if (done.length === 0) return 0;
    await Promise.all([
      db.kept.bulkDelete(done.map(({ entry }) => entry.id)),
      applyChanges(
        db,
        done.flatMap(({ changes }) => changes),
      ),
    ]);
    return done.length;
  });
}

/** What an entry does here: its changes, or that it is kept, and why. Nothing that it holds makes this fail. */
function reading(entry: Entry): {
  readonly entry: Entry;
  readonly changes: readonly Change[];
  readonly kept: KeptRow | null;
} {
  // It was judged by the server.
  const became = becomes(entry, { evidence: null });
  const { state } = became;
  if (state === 'unread') return { entry, changes: [], kept: keptRow(entry, state, became.fault) };
  if (state !== 'unfit') return { entry, changes: changesIn(became), kept: null };
  const { why } = became;
  const fault = { code: 'body/wrong', kind: entry.kind, where: '(the whole)', why } as const;
  return { entry, changes: [], kept: keptRow(entry, state, fault) };
}

function keptRow(entry: Entry, state: TriedAgain, fault: BodyFault): KeptRow {
  const why = fault.code === 'body/wrong' ? `${fault.where}: ${fault.why}` : fault.kind;
  const { id, stamp } = entry;
  return { id, where: 'here', state, code: fault.code, message: why, stamp, entry };
}
