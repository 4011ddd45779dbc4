/**
 * Keeps the mirror in the origin's private file system: only a worker may write there and wait for the disk. It comes
 * with every page, so it has nothing with it that it can do without: no schemas, and no tables of the books.
 */
import * as Comlink from 'comlink';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Meta, OwnBlock } from '../database';
import type { Mirror, MirrorLine } from './mirror-file';
import { asText, reachOf, type Reach } from './mirror-lines';

/** A file that is open in a worker (WHATWG File System); the compiler's library for pages does not know it. */
interface OpenFile {
  getSize(): number;
  read(into: Uint8Array, options: { readonly at: number }): number;
  write(bytes: Uint8Array, options: { readonly at: number }): number;
  truncate(size: number): void;
  flush(): void;
  close(): void;
}
interface OpenableFile extends FileSystemFileHandle {
  createSyncAccessHandle(): Promise<OpenFile>;
}

/** What was written, so that it can be kept elsewhere as well. */
export interface Written {
  /** Where it stands; 0 where all was made anew. */
  readonly at: number;
  readonly text: string;
}

const FILE = 'mirror.ndjson';
const RESERVE = 'reserve.bin';
const RESERVE_BYTES = 2 * 1024 * 1024;
const PROBE = 'probe.bin';
/** With room for less than this the device is short of it. */
const PROBE_BYTES = 1024 * 1024;
/** Milliseconds between two tries whether there is room. */
const PROBE_EVERY = 60_000;
const LOCK = 'stall-till-mirror';
/** A file of this many bytes is made anew once all that it holds has been sent. */
const LARGE = 256 * 1024;

/** What this worker wrote last: with the file as long as that, nobody else has written since. */
let last: (Reach & { readonly size: number }) | null = null;

const api = {
  /** Brings the mirror up to what the database has. @param isAnew Writes all of it again. */
  async follow(isAnew: boolean): Promise<Written | null> {
    let written: Written | null = null;
    await withFile(FILE, async (handle) => {
      const now = await standing();
      if (now === null) return;
      const { identity, erasures, head, sent, blocks } = now;
      const known = last?.size === handle.getSize() ? last : reachOf(textOf(handle));
      const isOurs = known?.device === identity.device && known.erasures === erasures;
      const isSpent = handle.getSize() > LARGE && sent >= (known?.upTo ?? 0);
      const from = isAnew || !isOurs || isSpent ? null : known.upTo;
      const lines: MirrorLine[] = [
        ...(from === null ? [{ identity, erasures }] : []),
        ...blocks
          .filter(({ upTo }) => from === null || upTo > from)
          .map((block) => ({ block: { upTo: block.upTo, entries: [...block.entries] } })),
        ...(head === null ? [] : [{ head, sent }]),
      ];
      if (from === null) handle.truncate(0);
      written = { at: handle.getSize(), text: asText(lines) };
      handle.write(new TextEncoder().encode(written.text), { at: written.at });
      handle.flush();
      const upTo = Math.max(from ?? 0, head?.seq ?? 0);
      last = { size: handle.getSize(), device: identity.device, erasures, upTo };
    });
    return written;
  },

  /**
   * Now and then tries whether there is room: that must be found out before the database itself has none, since
   * a browser that fails to write there may throw all of it away.
   * @returns False where there is hardly any left; what was kept back has been given away then.
   */
  async probe(): Promise<boolean> {
    if (Date.now() - probedAt < PROBE_EVERY) return true;
    probedAt = Date.now();
    if (await hasRoom()) return true;
    await this.giveWay();
    return false;
  },

  /** All that the file holds; empty where there is none. */
  async read(): Promise<string> {
    let found = '';
    await withFile(FILE, (handle) => {
      found = textOf(handle);
      return Promise.resolve();
    });
    return found;
  },

  /** There is nothing of this device to be kept any more. */
  async clear(): Promise<void> {
    await withFile(FILE, (handle) => {
      handle.truncate(0);
      handle.flush();
      last = null;
      return Promise.resolve();
    });
  },

  /** Keeps some room back, by writing it: what the browser estimates is no promise. @returns Whether it could. */
  async reserve(): Promise<boolean> {
    try {
      await withFile(RESERVE, (handle) => {
        if (handle.getSize() < RESERVE_BYTES) {
          handle.write(new Uint8Array(RESERVE_BYTES), { at: 0 });
          handle.flush();
        }
        return Promise.resolve();
      });
      return true;
    } catch {
      return false;
    }
  },

  /** Gives the room that was kept back away, so that what is under way can end. @returns Whether there was any. */
  async giveWay(): Promise<boolean> {
    let given = false;
    await withFile(RESERVE, (handle) => {
      given = handle.getSize() > 0;
      handle.truncate(0);
      handle.flush();
      return Promise.resolve();
    });
    return given;
  },
};
export type MirrorWorker = typeof api;

let probedAt = 0;

/** Judged by writing: what the browser estimates is no promise. */
async function hasRoom(): Promise<boolean> {
  let is = false;
  await withFile(PROBE, (handle) => {
    try {
      is = handle.write(new Uint8Array(PROBE_BYTES), { at: 0 }) === PROBE_BYTES;
      handle.flush();
    } catch {
      is = false;
    }
    handle.truncate(0);
    return Promise.resolve();
  });
  return is;
}

/** One window at a time: a file is open once. */
async function withFile(name: string, work: (handle: OpenFile) => Promise<void>): Promise<void> {
  await navigator.locks.request(LOCK, async () => {
    const folder = await navigator.storage.getDirectory();
    const file = (await folder.getFileHandle(name, { create: true })) as OpenableFile;
    const handle = await file.createSyncAccessHandle();
    try {
      await work(handle);
    } finally {
      handle.close();
    }
  });
}

const textOf = (handle: OpenFile): string => {
  const bytes = new Uint8Array(handle.getSize());
  handle.read(bytes, { at: 0 });
  return new TextDecoder().decode(bytes);
};

/** What is read of the device's database, which the page has made. */
interface Kept extends DBSchema {
  meta: { key: keyof Meta; value: { readonly value: Meta[keyof Meta] } };
  entries: { key: number; value: OwnBlock };
}
let opened: Promise<IDBPDatabase<Kept>> | null = null;

/** @throws {DOMException} There is no database: it is for the page to make it, whole. */
function database(): Promise<IDBPDatabase<Kept>> {
  opened ??= openDB<Kept>('stall-till', undefined, {
    upgrade: (_, __, ___, transaction) => transaction.abort(),
    // A page that makes another version of it, or deletes it, is not to wait for this.
    blocking: (_, __, { target }) => {
      opened = null;
      (target as IDBDatabase).close();
    },
    terminated: () => (opened = null),
  }).catch((error: unknown) => {
    opened = null;
    throw error;
  });
  return opened;
}

/** Where the device stands, all of one moment; null if it is not enrolled, or has wiped what it knew. */
async function standing(): Promise<Mirror | null> {
  const transaction = (await database()).transaction(['meta', 'entries']);
  const meta = transaction.objectStore('meta');
  const read = async <K extends keyof Meta>(key: K): Promise<Meta[K] | undefined> =>
    (await meta.get(key))?.value as Meta[K] | undefined;
  const [identity, head, known, isOut, erasures] = await Promise.all([
    read('identity'),
    read('head'),
    read('standing'),
    read('shutOut'),
    read('erasures'),
  ]);
  if (identity === undefined || isOut === true) return null;
  const sent = known?.sent ?? 0;
  const unsent = IDBKeyRange.lowerBound(sent, true);
  const blocks = await transaction.objectStore('entries').getAll(unsent);
  return { identity, erasures: erasures ?? 0, head: head ?? null, sent, blocks };
}

Comlink.expose(api);
