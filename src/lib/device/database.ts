/**
 * The device's database in IndexedDB. The books' tables are those of the core; beside them stands
 * what makes this a device: its daybook, what it received, where it stands with the server.
 */
import { Dexie, type Table, type Transaction } from 'dexie';
import { withoutPrivate, type ChainHead } from '../core/daybook/chain';
import type { Clock, Stamp } from '../core/daybook/clock';
import type { ChosenEvent } from '../core/event/todays-event';
import type { SumsMade } from '../core/journal/new-sums';
import type { Entry } from '../core/daybook/entry';
import type { FoundBusiness } from '../core/founding/found-business';
import type { Tries } from '../core/people/pin-tries';
import { rightsToBeginWith, withLaterRights, withSettling } from '../core/people/rights';
import type { OpenSlip } from '../core/slip/open-slip';
import { tables, deviceTables, type Row, type TableName } from '../core/books/tables';
import type { PrinterChoice } from './printer/printer';
import type { Field, TableSpec } from '../core/books/table-spec';

/** Who this device is. Made when it is enrolled and never changed. */
export interface Identity {
  readonly business: string;
  readonly device: string;
  /** Heads the numbers of its sales. */
  readonly number: number;
  /** 32 random bytes in hex; the server keeps only a hash of it. */
  readonly token: string;
}

/** Where the device's own daybook stands. Written only together with the entries it speaks of. */
export interface Head extends ChainHead {
  /** Sales rung up, final reads and returns made so far; all count on for ever. */
  readonly sales: number;
  readonly reads: number;
  readonly returns: number;
  /** The sale rung up last here, if any. */
  readonly lastSale: string | null;
}

/** Where the device stands with the server. */
export interface Standing {
  /** The last own `seq` that the server has said it has. */
  readonly sent: number;
  /** The last position received. */
  readonly position: number;
  /** What the server said stands there; it is asked whether that still holds. Missing before it was heard of. */
  readonly mark?: string;
  /** When all was looked through again because a number was missing; milliseconds since 1970. */
  readonly lookedAt?: number;
  /** Devices that were shut out. */
  readonly shutOut?: readonly string[];
  /** Last `seq` applied of each other device; what comes again is passed over by it. */
  readonly received: Readonly<Record<string, number>>;
  /** The latest clock seen in others' stamps. */
  readonly clock: Clock;
  /** How far the server's clock is ahead of this device's, in milliseconds; below nothing where it is behind. */
  readonly ahead?: number;
  /** When the server last answered, by this device's clock; milliseconds since 1970. */
  readonly heardAt?: number;
  /** Entries of others that came late, after ones that followed them; each is taken in once. */
  readonly late?: readonly string[];
  /** After which item pictures are still to be fetched; null when all are here. */
  readonly photosAfter?: string | null;
}

/** What the person at this device has chosen; of this device alone. */
export interface Choices {
  /** Who is selling. */
  readonly by: string | null;
  /** When somebody last touched this device, so that a lock that was due while it slept is not missed. */
  readonly seenAt?: number;
  /** Its receipt printer; missing is none. */
  readonly printer?: PrinterChoice;
  /** The event somebody chose by hand, as long as that holds. */
  readonly event?: ChosenEvent | null;
  /** The drawer this device uses, by event. */
  readonly drawers: Readonly<Record<string, string>>;
}

/** What a business is founded on, kept from the server's answer until its entries are on disk. */
export interface Founding extends Omit<FoundBusiness, 'newId'> {
  readonly deviceName: string;
}

/** The acquirer's public key, as a JSON Web Key. */
export interface CardKey {
  readonly key: JsonWebKey;
  /** A stand-in takes the place of acquirer and reader. */
  readonly isPractice: boolean;
}

export type Forgotten = 'by itself' | 'by the browser';

export interface Meta {
  readonly identity: Identity;
  /** A device that is being enrolled; kept so that a lost answer can be asked for again. */
  readonly enrolling: Pick<Identity, 'device' | 'token'> & {
    /** Of a business that begins here: its owner, and what a repeated sign-up proves itself by. */
    readonly owner?: string;
    readonly key?: string;
  };
  readonly head: Head;
  /** The last own `seq` whose changes are in the books. */
  readonly applied: number;
  readonly standing: Standing;
  readonly choices: Choices;
  readonly slip: KeptSlip;
  /** First entries of a business that are still to be written. */
  readonly founding: Founding;
  /** This device has been shut out and has wiped what it knew. */
  readonly shutOut: boolean;
  /** It had no network for longer than the vendor lets it, or the browser threw away what it knew. */
  readonly forgotten: Forgotten;
  /** How often something personal was dropped from what is kept: the mirror is made anew then. */
  readonly erasures: number;
  /** Which sums its rows have been worked out for, as they were declared then. */
  readonly sums: SumsMade;
  /** What cards are sealed with; missing until it has been asked for. */
  readonly cardKey: CardKey;
  /** Wrong PINs in a row, by person. */
  readonly pinTries: Readonly<Record<string, Tries>>;
  /** Papers that were made here, the latest last. */
  readonly printed: readonly string[];
}
export type MetaRow = {
  readonly [K in keyof Meta]: { readonly key: K; readonly value: Meta[K] };
}[keyof Meta];

/** The slip that is open at the counter; there is one, and all windows share it. */
export interface KeptSlip extends OpenSlip {
  /** Counts every change; lets a window tell its own changes from another's. */
  readonly revision: number;
}

/** What one append wrote; `upTo` is the `seq` of the last of them. */
export interface OwnBlock {
  readonly upTo: number;
  readonly entries: readonly Entry[];
}

/** Entries of others, in blocks: one row each would be slow. */
export interface ReceivedBlock {
  readonly upTo: number;
  readonly entries: readonly Entry[];
}

/** An entry that is kept, here or on the server, but could not be applied. */
export interface KeptRow {
  readonly id: string;
  readonly where: 'here' | 'server';
  /** What became of it on the server. */
  readonly state?: 'kept' | 'barred' | 'doubted';
  /** Barred, and undone in the rows here. */
  readonly isPutRight?: boolean;
  readonly code: string;
  readonly message: string;
  readonly stamp: Stamp;
  /** The entry itself, when this device has to try it again. */
  readonly entry: Entry | null;
}

type BookTables = {
  readonly [T in TableName]: Table<Row<T>, string | readonly (string | number)[]>;
};

export class DeviceDatabase extends Dexie {
  declare readonly meta: Table<MetaRow, keyof Meta>;
  declare readonly entries: Table<OwnBlock, number>;
  declare readonly received: Table<ReceivedBlock, number>;
  declare readonly kept: Table<KeptRow, string>;

  constructor(
    name = 'stall-till',
    options: { readonly indexedDB?: IDBFactory; readonly IDBKeyRange?: typeof IDBKeyRange } = {},
  ) {
    // Strict: only then does a transaction that is done survive a battery that dies.
    super(name, { chromeTransactionDurability: 'strict', ...options });
    const stores: Record<string, string> = {
      meta: 'key',
      entries: 'upTo',
      received: '++block',
      kept: 'id',
    };
    for (const table of deviceTables) stores[table] = storeOf(tables[table]);
    this.version(1).stores(stores);
    // Version 2 brought rights, PINs, the lock and `acts`; the rows of version 1 get what they lack.
    this.version(2)
      .stores(stores)
      .upgrade(async (transaction) => {
        const people = transaction.table<Record<string, unknown>>('staff');
        await people.toCollection().modify((row) => {
          row['rights'] ??= rightsToBeginWith(row['role']);
          row['discountUpTo'] ??= '0';
          row['pin'] ??= null;
        });
        const businesses = transaction.table<Record<string, unknown>>('businesses');
        await businesses.toCollection().modify((row) => void (row['lockAfter'] ??= 0));
      });
    // Version 3 brought customers, settlements, and what a device is given.
    this.version(3)
      .stores(stores)
      .upgrade(async (transaction) => {
        const devices = transaction.table<Record<string, unknown>>('devices');
        await devices.toCollection().modify((row) => {
          row['event'] ??= null;
          row['drawer'] ??= null;
        });
      });
    // Version 4 brought all that a slip can hold, version 5 ways to pay, version 6 signatures and
    // cards on file; rows get what they lack.
    this.version(4).stores(stores).upgrade(fillUp);
    this.version(5).stores(stores).upgrade(fillUp);
    this.version(6).stores(stores).upgrade(fillUp);
    // Version 7 brought salted PINs and what was decided of held cards; what the acquirer calls a card
    // on file is the server's alone.
    this.version(7)
      .stores(stores)
      .upgrade(async (transaction) => {
        await fillUp(transaction);
        await forgetTokens(transaction);
      });
    // Version 8 let go of what only the server reads, and gave what one person edits at once a stamp of its own, and each stage of an event.
    this.version(8)
      .stores({ ...stores, receiptAsks: null })
      .upgrade(async (transaction) => {
        await fillUp(transaction);
        await stampApart(transaction);
      });
    // Version 9 brought places, suppliers, lists of goods and counts, and rights to move, order and count stock.
    this.version(9)
      .stores(stores)
      .upgrade(async (transaction) => {
        await fillUp(transaction);
        await transaction
          .table<{ rights: readonly string[] }>('staff')
          .toCollection()
          .modify((row) => void (row.rights = withLaterRights(row.rights)));
      });
    // Version 10 brought cash in between, what becomes of cash that was counted, and the right to settle events.
    this.version(10)
      .stores(stores)
      .upgrade(async (transaction) => {
        await fillUp(transaction);
        await transaction
          .table<{ rights: readonly string[] }>('staff')
          .toCollection()
          .modify((row) => void (row.rights = withSettling(row.rights)));
      });
    // Version 11 brought goods that came back.
    this.version(11).stores(stores).upgrade(fillUp);
    // Version 12 brought goods that come back and pay for others.
    this.version(12).stores(stores).upgrade(fillUp);
    // Version 13 brought accounts that somebody holds.
    this.version(13).stores(stores).upgrade(fillUp);
    // Version 14 brought orders of customers.
    this.version(14).stores(stores).upgrade(fillUp);
    // Version 15 brought points and rewards.
    this.version(15).stores(stores).upgrade(fillUp);
    // Version 16 brought invoices.
    this.version(16).stores(stores).upgrade(fillUp);
    // Version 17 brought records of customers that are of one person.
    this.version(17).stores(stores).upgrade(fillUp);
    // Version 18 brought vouchers for goods of one tax.
    this.version(18).stores(stores).upgrade(fillUp);
    // Version 19 brought standing charges.
    this.version(19).stores(stores).upgrade(fillUp);
    const books = deviceTables.map((table) => [table, this.table(table)]);
    this.books = Object.fromEntries<Table>(books as [TableName, Table][]) as unknown as BookTables;
  }

  /** The books' tables by name; not as properties of their own, since Dexie has a `tables` itself. */
  readonly books: BookTables;

  async read<K extends keyof Meta>(key: K): Promise<Meta[K] | undefined> {
    const row = await this.meta.get(key);
    return row?.value as Meta[K] | undefined;
  }

  async write<K extends keyof Meta>(key: K, value: Meta[K]): Promise<void> {
    await this.meta.put({ key, value } as MetaRow);
  }
}

/** Gives every row the fields that there was no word for when it was written. */
async function fillUp(transaction: Transaction): Promise<void> {
  for (const name of deviceTables) {
    const fields = Object.entries<Field<unknown>>(tables[name].fields);
    await transaction
      .table<Record<string, unknown>>(name)
      .toCollection()
      .modify((row) => {
        for (const [field, spec] of fields)
          row[field] ??= INITIAL[`${name}.${field}`] ?? spec.initial;
      });
  }
}

/** What was set together until then was set by the same stamp. */
async function stampApart(transaction: Transaction): Promise<void> {
  await transaction
    .table<Record<string, unknown>>('businesses')
    .toCollection()
    .modify((row) => void (row['lockStamp'] = row['setStamp']));
  await transaction
    .table<Record<string, unknown>>('events')
    .toCollection()
    .modify((row) => {
      row['taxesStamp'] = row['waysStamp'] = row['setStamp'];
      const { stage, stageStamp } = row;
      delete row['stage'];
      delete row['stageStamp'];
      const reached = `${String(stage)}Stamp`;
      if (reached in row) row[reached] = stageStamp;
    });
}

/** Drops what the acquirer calls cards from rows and from entries; their chains stay good. */
async function forgetTokens(transaction: Transaction): Promise<void> {
  await transaction
    .table<Record<string, unknown>>('customers')
    .toCollection()
    .modify((row) => void delete row['cardToken']);
  await transaction
    .table<Record<string, unknown>>('staff')
    .toCollection()
    .modify((row) => {
      if (row['pinStamp'] === '') row['pinStamp'] = row['setStamp'];
      const pin = row['pin'] as { salt?: string } | null;
      if (pin !== null && pin.salt === undefined) row['pin'] = { ...pin, salt: '' };
    });
  for (const blocks of ['entries', 'received'])
    await transaction
      .table<{ entries: readonly Entry[] }>(blocks)
      .toCollection()
      .modify((block) => {
        block.entries = block.entries.map((entry) =>
          entry.kind === 'customer.card' && entry.v === 1 ? withoutPrivate(entry) : entry,
        );
      });
}

/** What fields were before there was a word for them, where that is not nothing. */
const INITIAL: Readonly<Record<string, unknown>> = {
  'tables.size': 'middle',
  'businesses.typedSide': 'cash',
  'businesses.uplift': '0',
  'items.isReturnable': true,
  'items.earnsPoints': true,
  'payments.wayName': 'Cash',
  'payments.method': 'cash',
  'payments.side': 'cash',
};

export const NO_CHOICES: Choices = { by: null, drawers: {} };

function storeOf(spec: TableSpec): string {
  const [first = '', ...rest] = spec.key;
  const key = rest.length === 0 ? first : `[${[first, ...rest].join('+')}]`;
  return [key, ...spec.indexes].join(', ');
}
