/**
 * The device's database in IndexedDB. The books' tables are those of the core; beside them stands
 * what makes this a device: its daybook, what it received, where it stands with the server.
 */
import { Dexie, type Table } from 'dexie';
import type { ChainHead } from '../core/daybook/chain';
import type { Clock, Stamp } from '../core/daybook/clock';
import type { ChosenEvent } from '../core/event/todays-event';
import type { SumsMade } from '../core/journal/new-sums';
import type { Entry } from '../core/daybook/entry';
import type { ToBeSeen } from '../core/daybook/sync-messages';
import type { FoundBusiness } from '../core/founding/found-business';
import type { Tries } from '../core/people/pin-tries';
import type { OpenSlip } from '../core/slip/open-slip';
import { tables, deviceTables, type Row, type TableName } from '../core/books/tables';
import type { PrinterChoice } from './printer/printer';
import type { TableSpec } from '../core/books/table-spec';
import { declareVersions } from './database-versions';

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
  /** Milliseconds since 1970; none where an older version heard of it. */
  readonly heardAt?: number;
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
  /** What became of it, on the server where that has it. */
  readonly state?: ToBeSeen;
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
    declareVersions(this, stores);
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

export const NO_CHOICES: Choices = { by: null, drawers: {} };

function storeOf(spec: TableSpec): string {
  const [first = '', ...rest] = spec.key;
  const key = rest.length === 0 ? first : `[${[first, ...rest].join('+')}]`;
  return [key, ...spec.indexes].join(', ');
}
