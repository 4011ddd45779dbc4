/**
 * The device's own daybook. Writing has two steps:
 *
 * 1. `append`: one strict transaction reads the head, runs the command, and writes the entries and
 *    the new head. IndexedDB runs one such transaction at a time, whichever windows ask. When
 *    `append` has returned, what happened is on disk.
 * 2. `settle`: right after, and at every start, the rows follow. One transaction applies the entries
 *    that were not applied yet and notes up to where, so each is applied exactly once, whatever dies
 *    in between (docs/decisions/0008).
 */
import {
  chainEntry,
  EMPTY_CHAIN,
  headAfter,
  type ChainHead,
  type Draft,
} from '../core/daybook/chain';
import { erasedBy } from '../core/customer/erased';
import { CLOCK_AT_REST, type Clock } from '../core/daybook/clock';
import type { Entry } from '../core/daybook/entry';
import { isTooLarge } from '../core/daybook/entry-size';
import { isNoRoom } from '../core/daybook/no-room';
import { readEntry } from '../core/daybook/read-entry';
import { becomes, changesIn } from '../core/judging/becomes';
import { applyChanges, touchedBy } from './apply-changes';
import { isBlank, type OpenSlip } from '../core/slip/open-slip';
import type { DeviceDatabase, Head, KeptSlip, Meta, MetaRow, OwnBlock } from './database';
import { erasePrivate, personalTables } from './erase';

/** What a command needs to know of the daybook it will be written in. */
export interface Next {
  readonly saleNumber: number;
  readonly readNumber: number;
  readonly returnNumber: number;
}

export type Made<Refusal> =
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: Refusal };

export type Appended<M> = M | { readonly ok: false; readonly refusal: SlipGone };

/** The slip was rung up already, perhaps in another window. */
export interface SlipGone {
  readonly code: 'slip/gone';
}

export interface AppendOptions {
  /** The open slip that this settles: it must still be there, and is gone afterwards. */
  readonly settles?: string;
  /** The revision that the slip must still have, where another window's change would matter. */
  readonly revision?: number;
  /** The slip as it goes on instead of being gone; asked after the command. Null is gone. */
  readonly leaves?: () => OpenSlip | null;
  /** A slip that this takes up: nothing may be on the one that is open, unless this settles it. */
  readonly opens?: KeptSlip;
  /** The last own `seq` that this was decided by: with more written meanwhile, it is decided again. */
  readonly after?: number;
  /** The colleague who lent the right to this, having shown a PIN. */
  readonly lentBy?: string;
}

/** The surroundings that tests put others in place of. */
export interface Surroundings {
  readonly now: () => number;
  /** Told behind each append. */
  readonly mirror?: { follow(): void };
  /** Asked when the browser has no room left to write; whether it is worth another try. */
  readonly makeRoom?: () => Promise<boolean>;
}

/** A body that its own schema refuses was about to be written: a fault of this program. */
export class UnfitDraftError extends Error {
  constructor(
    readonly kind: string,
    why: string,
  ) {
    super(`${kind} was not written: ${why}`);
    this.name = 'UnfitDraftError';
  }
}

/** More was written since the rows were read that a command was to be decided by. */
class OvertakenError extends Error {
  constructor() {
    super('more was written meanwhile');
    this.name = 'OvertakenError';
  }
}

/** This browser is not enrolled. */
export class NoIdentityError extends Error {
  constructor() {
    super('this browser is not enrolled as a device yet');
    this.name = 'NoIdentityError';
  }
}

const EMPTY_HEAD: Head = { ...EMPTY_CHAIN, sales: 0, reads: 0, returns: 0, lastSale: null };

/** Heads from before goods came back had no count of it. */
const returnsOf = ({ returns }: Partial<Pick<Head, 'returns'>>): number => returns ?? 0;

/** What an append is worked out from. */
type Ground = Pick<Partial<Meta>, 'identity' | 'standing' | 'choices' | 'head'>;

/** What an append would write, and from what it was worked out. */
interface Attempt<M> {
  readonly made: Appended<M>;
  readonly entries: readonly Entry[];
  readonly head: Head;
  readonly ground: Ground;
}

export class DeviceDaybook {
  #settling: Promise<void> = Promise.resolve();
  /** What this window wrote or read last: a guess, since another window may have written since. */
  #seen: Ground | null = null;

  constructor(
    readonly db: DeviceDatabase,
    readonly surroundings: Surroundings = browser,
  ) {}

  /**
   * Runs a command of the core and writes what it drafted, all of it or nothing. The command must
   * wait for nothing, since it runs within the transaction, and change nothing: it may run twice.
   * @returns What the command returned; nothing was written when it was refused.
   * @throws {UnfitDraftError} Nothing was written.
   */
  async append<M extends Made<unknown>>(
    command: (next: Next) => M,
    options: AppendOptions = {},
  ): Promise<Appended<M>> {
    if (!this.db.isOpen()) await this.db.open();
    const attempt = (ground: Ground): Attempt<M> => this.#attempt(command, ground, options.lentBy);
    const write = async (): Promise<Attempt<M> | null> =>
      (await this.#write(options, attempt, this.#seen)) ??
      (await this.#write(options, attempt, null));
    const written = await write().catch(async (error: unknown) => {
      if (!isNoRoom(error) || (await this.surroundings.makeRoom?.()) !== true) throw error;
      return await write();
    });
    setTimeout(() => {
      this.surroundings.mirror?.follow();
      this.#settleBehind();
    });
    if (written === null) {
      if (options.after !== undefined && (await this.#headSeq()) !== options.after)
        throw new OvertakenError();
      return { ok: false, refusal: { code: 'slip/gone' } };
    }
    this.#seen = { ...written.ground, head: written.head };
    return written.made;
  }

  /**
   * Appends what is decided by the rows: they have followed all that this device wrote when `look` reads them,
   * and nothing is written if anything was in between. Whatever two taps or two windows ask for, the second is
   * decided by what the first has done.
   */
  async decide<E, M extends Made<unknown>>(
    look: () => Promise<E>,
    command: (found: E, next: Next) => M,
    options: Omit<AppendOptions, 'after'> = {},
  ): Promise<Appended<M>> {
    for (;;) {
      await this.settle();
      const after = (await this.db.read('applied')) ?? 0;
      const found = await look();
      try {
        const made = await this.append((next) => command(found, next), { ...options, after });
        await this.settle();
        return made;
      } catch (error) {
        if (!(error instanceof OvertakenError)) throw error;
      }
    }
  }

  async #headSeq(): Promise<number> {
    return (await this.db.read('head'))?.seq ?? 0;
  }

  /** Lets the rows follow the entries; resolves when they have. */
  async settle(): Promise<void> {
    // One after another; a failure is tried again by the next one, and at the next start.
    this.#settling = this.#settling.then(
      () => this.#applyOwn(),
      () => this.#applyOwn(),
    );
    await this.#settling;
  }

  #settleBehind(): void {
    this.settle().catch((error: unknown) => console.error('the rows will follow later:', error));
  }

  /**
   * Step 1, in raw IndexedDB: nothing a seller waits for may cost more. From a `guess` of what is
   * there the entries are made and written while it is still being read; if the guess was wrong, the
   * same transaction takes them back.
   * @returns Null, with nothing written, if the guess was wrong or the slip is gone.
   */
  #write<M extends Made<unknown>>(
    { settles, revision, leaves, opens, after }: AppendOptions,
    attempt: (ground: Ground) => Attempt<M>,
    guess: Ground | null,
  ): Promise<Attempt<M> | null> {
    return new Promise((resolve, reject) => {
      const transaction = this.db
        .backendDB()
        .transaction(['meta', 'entries'], 'readwrite', { durability: 'strict' });
      const meta = transaction.objectStore('meta');
      let outcome: Attempt<M> | null = null;
      let fault: unknown = null;
      const takeBack = (): void => {
        outcome = null;
        transaction.abort();
      };
      const write = (ground: Ground): void => {
        try {
          outcome = attempt(ground);
          const { entries, head } = outcome;
          const last = entries.at(-1);
          if (last === undefined) return;
          const block: OwnBlock = { upTo: last.seq, entries };
          transaction.objectStore('entries').add(block);
          meta.put({ key: 'head', value: head } satisfies MetaRow);
          const goesOn = settles === undefined ? null : (leaves?.() ?? null);
          if (goesOn !== null) {
            const value = { ...goesOn, revision: (revision ?? 0) + 1 };
            meta.put({ key: 'slip', value } satisfies MetaRow);
          } else if (settles !== undefined) meta.delete('slip');
          if (opens !== undefined) meta.put({ key: 'slip', value: opens } satisfies MetaRow);
          // Checked while the browser writes; nothing is committed before this returns.
          entries.forEach(mustBeFit);
        } catch (error) {
          fault = error;
          takeBack();
        }
      };
      const reading = meta.getAll() as IDBRequest<MetaRow[]>;
      reading.onsuccess = () => {
        const found = asMeta(reading.result);
        const isGone =
          (settles !== undefined && !isSlip(found.slip, settles, revision)) ||
          (opens !== undefined &&
            settles === undefined &&
            found.slip !== undefined &&
            !isBlank(found.slip)) ||
          (after !== undefined && (found.head?.seq ?? 0) !== after);
        if (isGone || (outcome !== null && !isSame(outcome.ground, found))) {
          takeBack();
          return;
        }
        if (outcome === null) write(found);
        // Without being told of each write first; should one fail, all are taken back.
        if (outcome !== null) transaction.commit();
      };
      if (guess !== null) write(guess);
      transaction.oncomplete = () => resolve(outcome);
      transaction.onabort = () => {
        const why = fault ?? transaction.error;
        if (why === null) resolve(null);
        else reject(asError(why));
      };
    });
  }

  /** @throws {NoIdentityError} If there is none. */
  #attempt<M extends Made<unknown>>(
    command: (next: Next) => M,
    ground: Ground,
    lentBy: string | undefined,
  ): Attempt<M> {
    const { identity, standing, choices, head = EMPTY_HEAD } = ground;
    if (identity === undefined) throw new NoIdentityError();
    const made = command({
      saleNumber: head.sales + 1,
      readNumber: head.reads + 1,
      returnNumber: returnsOf(head) + 1,
    });
    if (!made.ok) return { made, entries: [], head, ground };
    const { business, device } = identity;
    const now = this.surroundings.now();
    const writer = { business, device, by: choices?.by ?? null, lentBy, now };
    let last: ChainHead = { ...head, clock: later(head.clock, standing?.clock ?? CLOCK_AT_REST) };
    const entries = made.drafts.map((draft) => {
      const entry = chainEntry(draft, last, writer);
      last = headAfter(entry);
      return entry;
    });
    const counted = (kind: string): number => entries.filter((entry) => entry.kind === kind).length;
    const next: Head = {
      ...last,
      sales: head.sales + counted('sale.rung'),
      reads: head.reads + counted('drawer.counted'),
      returns: returnsOf(head) + counted('return.made') + counted('refund.made'),
      lastSale: entries.findLast(({ kind }) => kind === 'sale.rung')?.id ?? head.lastSale,
    };
    return { made, entries, head: next, ground };
  }

  /** Step 2, for all that was appended since, by whichever window. */
  async #applyOwn(): Promise<void> {
    const { db } = this;
    for (;;) {
      const applied = (await db.read('applied')) ?? 0;
      const entries = await ownEntriesAfter(db, applied, MOST_AT_ONCE);
      const last = entries.at(-1);
      if (last === undefined) return;
      const changes = entries.flatMap((entry) => changesIn(becomes(entry, { evidence: null })));
      const books = touchedBy(changes).map((table) => db.table(table));
      const erased = erasedBy(entries);
      const erasing = erased.length > 0 ? personalTables(db) : [];
      await db.transaction('rw', [db.meta, ...erasing, ...books], async () => {
        // Another window may have been faster: then there is nothing of this left to do.
        if (((await db.read('applied')) ?? 0) !== applied) return;
        await Promise.all([db.write('applied', last.seq), applyChanges(db, changes)]);
        if (erased.length > 0) await erasePrivate(db, erased);
      });
    }
  }
}

const MOST_AT_ONCE = 500;

/** The device's own entries after a `seq`, in order; at most about `most`, always whole appends. */
export async function ownEntriesAfter(
  db: DeviceDatabase,
  seq: number,
  most: number,
): Promise<Entry[]> {
  const entries: Entry[] = [];
  await db.entries
    .where('upTo')
    .above(seq)
    .until(() => entries.length >= most)
    .each((block) => void entries.push(...block.entries.filter((entry) => entry.seq > seq)));
  return entries;
}

const isSlip = (slip: KeptSlip | undefined, id: string, revision: number | undefined): boolean =>
  slip?.id === id && (revision === undefined || slip.revision === revision);

const asMeta = (rows: readonly MetaRow[]): Partial<Meta> =>
  Object.fromEntries(rows.map(({ key, value }) => [key, value]));

/** Whether an append worked out from one would be the same worked out from the other. */
function isSame(a: Ground, b: Ground): boolean {
  const relevant = ({ identity, standing, choices, head }: Ground): string =>
    JSON.stringify([identity?.device, standing?.clock, choices?.by, head]);
  return relevant(a) === relevant(b);
}

/** @throws {UnfitDraftError} If the entry's body is not what its kind's schema asks for. */
function mustBeFit(entry: Entry): void {
  const read = readEntry(entry);
  if (!read.ok) throw new UnfitDraftError(entry.kind, JSON.stringify(read.fault));
  if (isTooLarge(entry)) throw new UnfitDraftError(entry.kind, 'it is larger than an entry may be');
}

const later = (a: Clock, b: Clock): Clock =>
  b.millis > a.millis || (b.millis === a.millis && b.counter > a.counter) ? b : a;

const asError = (error: unknown): Error =>
  error instanceof Error ? error : new Error('the browser did not keep it', { cause: error });

const browser: Surroundings = { now: () => Date.now() };
