/**
 * The mirror as the screens use it: followed behind each append, read when the database is found empty. It is kept
 * twice: in a file, which is on disk when it says so; and in what the browser keeps by key (`localStorage`), which
 * is the one thing that a browser with a full disk was not seen to throw away with the database.
 */
import * as Comlink from 'comlink';
import { PartLostError } from '../../core/daybook/part-lost';
import type { DeviceDatabase } from '../database';
import { NO_STANDING } from '../receive';
import { mirrorFrom, type Mirror } from './mirror-file';
import type { MirrorWorker, Written } from './mirror-worker';

/** Whether this browser has a file system of ours at all. */
const isThere = (): boolean =>
  typeof Worker === 'function' && typeof navigator.storage.getDirectory === 'function';

/** How often the worker is asked for before a reader gives up, and milliseconds before the second time. */
const TRIES = 4;
const PAUSE = 500;

/** The worker, and what rejects once it is lost: what it was asked would wait for ever. */
interface Started {
  readonly api: Pick<Comlink.Remote<MirrorWorker>, keyof MirrorWorker>;
  readonly lost: Promise<never>;
}

function startWorker(): Started {
  const worker = new Worker(new URL('./mirror-worker.ts', import.meta.url), { type: 'module' });
  const lost = new Promise<never>((_, reject) => {
    worker.addEventListener('error', () => {
      worker.terminate();
      reject(new PartLostError());
    });
  });
  return { api: Comlink.wrap<MirrorWorker>(worker), lost };
}

export class DeviceMirror {
  #started: Started | null = null;
  #following: Promise<void> | null = null;
  #again: 'no' | 'more' | 'anew' = 'no';
  /** There was no room left to keep it by key: it is in its file alone. */
  #isFullByKey = false;

  /** @param onLow There is hardly any room left on the device. */
  constructor(readonly onLow: () => void = () => undefined) {}

  /**
   * @returns Null where there is no file system to ask about.
   * @throws {PartLostError} The next who asks has another worker.
   */
  async #ask<T>(question: (api: Started['api']) => Promise<T>): Promise<T | null> {
    if (!isThere()) return null;
    if (this.#started === null) {
      this.#started = startWorker();
      this.#started.lost.catch(() => (this.#started = null));
    }
    const { api, lost } = this.#started;
    return await Promise.race([question(api), lost]);
  }

  /** Something was appended; `isAnew` where something that stands in the mirror is to be gone from it. */
  follow(isAnew = false): void {
    if (this.#following !== null) {
      if (this.#again !== 'anew') this.#again = isAnew ? 'anew' : 'more';
      return;
    }
    this.#following = this.#follow(isAnew)
      .catch((error: unknown) => console.error('the mirror follows with the next sale:', error))
      .finally(() => {
        const again = this.#again;
        [this.#following, this.#again] = [null, 'no'];
        if (again !== 'no') this.follow(again === 'anew');
      });
  }

  async #follow(isAnew: boolean): Promise<void> {
    if (!isThere()) return;
    // One window after another, so that both copies have the same lines in the same order.
    await navigator.locks.request(LOCK, async () => {
      // A file from before there were two copies is made anew, so that the other has the whole of it.
      const isWhole = this.#isFullByKey || localStorage.getItem(keyAt(0)) !== null;
      const written = await this.#ask((api) => api.follow(isAnew || !isWhole));
      if (written !== null && !keepByKey(written)) this.#isFullByKey = true;
    });
    if ((await this.#ask((api) => api.probe())) === false) this.onLow();
  }

  /** @throws {PartLostError} What is in the file is not known: who is there must not become anybody else. */
  async read(): Promise<Mirror | null> {
    for (let tries = 1, pause = PAUSE; ; tries += 1, pause *= 2) {
      try {
        const text = (await this.#ask((api) => api.read())) ?? '';
        return mirrorFrom(text) ?? mirrorFrom(textByKey());
      } catch (error) {
        if (!(error instanceof PartLostError)) return mirrorFrom(textByKey());
        if (tries >= TRIES) throw error;
        await new Promise((resolve) => setTimeout(resolve, pause));
      }
    }
  }

  async clear(): Promise<void> {
    clearKeys();
    await this.#ask((api) => api.clear());
  }

  /** Keeps room back. @returns False where there was none to keep: the device is short of it. */
  async reserve(): Promise<boolean> {
    return (await this.#ask((api) => api.reserve())) ?? true;
  }

  /** Gives the room that was kept back away. @returns Whether there was any, so that it is worth another try. */
  async giveWay(): Promise<boolean> {
    return (await this.#ask((api) => api.giveWay())) ?? false;
  }
}

const LOCK = 'stall-till-mirror-copies';
const PREFIX = 'mirror:';

const ownKeys = (): string[] =>
  Object.keys(localStorage)
    .filter((key) => key.startsWith(PREFIX))
    .sort();

/** Each piece under where it stands in the file, so that they follow each other in the order of their keys. */
const keyAt = (at: number): string => `${PREFIX}${String(at).padStart(12, '0')}`;

/** @returns False where there was no room: nothing is kept then, rather than pieces with one missing. */
function keepByKey({ at, text }: Written): boolean {
  if (at === 0) clearKeys();
  else if (localStorage.getItem(keyAt(0)) === null) return true;
  try {
    localStorage.setItem(keyAt(at), text);
    return true;
  } catch (error) {
    clearKeys();
    console.error('the mirror is kept in its file alone:', error);
    return false;
  }
}

function clearKeys(): void {
  for (const key of ownKeys()) localStorage.removeItem(key);
}

const textByKey = (): string =>
  ownKeys()
    .map((key) => localStorage.getItem(key) ?? '')
    .join('');

/**
 * A database that is empty while there is a mirror was thrown away by the browser. The device is again who it
 * was, with what it had not sent; the rest it takes in again as soon as there is a network.
 * @returns Whether there was anything to take back.
 */
export async function takeBack(db: DeviceDatabase, mirror: Mirror | null): Promise<boolean> {
  if (mirror === null) return false;
  const { identity, erasures, head, sent, blocks } = mirror;
  return await db.transaction('rw', db.meta, db.entries, async () => {
    if ((await db.read('identity')) !== undefined) return false;
    await db.write('identity', identity);
    if (head !== null) await db.write('head', head);
    await db.write('standing', { ...NO_STANDING, sent });
    await db.write('forgotten', 'by the browser');
    await db.write('erasures', erasures);
    await db.entries.bulkPut([...blocks]);
    return true;
  });
}

/**
 * At every door by which a browser without an identity comes in: one whose database was thrown away must be who
 * it was before it can become anybody else, or what it had not sent would be overwritten.
 * @throws {PartLostError}
 */
export async function takeBackIfThrownAway(db: DeviceDatabase): Promise<boolean> {
  if ((await db.read('identity')) !== undefined) return false;
  const mirror = await new DeviceMirror().read().catch((error: unknown) => {
    if (error instanceof PartLostError) throw error;
    return null;
  });
  return await takeBack(db, mirror);
}
