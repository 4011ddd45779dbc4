/**
 * The open slip of this device, and the one line in which everything that happens to it stands: what is put
 * on it, and every act on it, each after the one before. All windows share the slip.
 *
 * - A change is shown at once and saved behind. If another window changed the slip meanwhile, it is made again
 *   on the slip as it is then; if the slip is gone, it is made on the next one. It is never dropped.
 * - An act (ringing up, setting aside …) is decided on the slip that was shown when it was asked for, and on no
 *   other. What is tapped while it is under way belongs to what the act leaves: the next slip, or the same.
 */
import {
  emptySlip,
  isBlank,
  type OpenSlip,
  type SlipOutcome,
  type SlipRefusal,
} from '../core/slip/open-slip';
import type { DeviceDatabase, KeptSlip } from './database';

export type Change = (slip: OpenSlip) => SlipOutcome;

/** The slip as it is on disk. `revision` is 0 for one that was never saved. */
export interface SavedSlip {
  readonly slip: OpenSlip;
  readonly revision: number;
}

/** What an act came to. */
export interface Acted<T> {
  readonly result: T;
  /** The slip as the act left it on disk; null: it is gone. Missing: as it was. */
  readonly left?: OpenSlip | null;
  /** Its revision there, if it is another slip than before. */
  readonly leftAt?: number;
}

/** Why an act was not begun: this window has ended the slip already, or another one has changed it. */
export type NotActed = 'ended' | 'changed';

export type ActOutcome<T> =
  | { readonly acted: true; readonly result: T }
  | { readonly acted: false; readonly why: NotActed };

export interface SlipSurroundings {
  readonly newId: () => string;
  /** Resolves once what was shown can be seen. */
  readonly seen: () => Promise<void>;
  /** Why a change may not be made, or null; a slip that is paid in part keeps what it comes to. */
  readonly forbids: (before: OpenSlip, after: OpenSlip) => SlipRefusal | null;
  readonly onShown: (slip: OpenSlip) => void;
  /** A change that could not be made after all, on the slip as it was by then. */
  readonly onRefused: (refusal: SlipRefusal) => void;
  /** Why what is shown is not on disk; null once it is. */
  readonly onFault: (error: unknown) => void;
}

export class SlipQueue {
  #base: SavedSlip;
  #shown: OpenSlip;
  /** Made, shown and not saved yet. */
  #pending: Change[] = [];
  /** Made while an act was under way. */
  #later: Change[] = [];
  #acts = 0;
  /** How often another window’s doing was taken over. */
  #foreign = 0;
  #tail: Promise<void> = Promise.resolve();
  #isSaveDue = false;

  constructor(
    readonly db: DeviceDatabase,
    readonly surroundings: SlipSurroundings,
  ) {
    this.#shown = emptySlip(surroundings.newId());
    this.#base = { slip: this.#shown, revision: 0 };
  }

  get shown(): OpenSlip {
    return this.#shown;
  }

  /** Changes the slip. @returns Why not, or null. */
  change(change: Change): SlipRefusal | null {
    if (this.#acts > 0) {
      this.#later.push(change);
      return null;
    }
    const outcome = this.#changed(this.#shown, change);
    if (!outcome.ok) return outcome.refusal;
    this.#pending.push(change);
    this.#show(outcome.slip);
    this.#saveBehind();
    return null;
  }

  /**
   * Does something with the slip as it is shown now, after all that was asked for before.
   * @throws What `run` throws, or why the slip could not be saved; the slip is as it was then.
   */
  async act<T>(run: (open: SavedSlip) => Promise<Acted<T>>): Promise<ActOutcome<T>> {
    const [on, foreign] = [this.#shown.id, this.#foreign];
    this.#acts += 1;
    try {
      return await this.#next(async (): Promise<ActOutcome<T>> => {
        await this.#saveAll();
        if (this.#base.slip.id !== on)
          return { acted: false, why: this.#foreign === foreign ? 'ended' : 'changed' };
        if (this.#foreign !== foreign) return { acted: false, why: 'changed' };
        const { result, left, leftAt } = await run(this.#base);
        // Whatever it wrote, what is on disk is what it left; and another window may have been faster.
        if (left === undefined) await this.#look();
        else this.#leave(left, leftAt);
        return { acted: true, result };
      });
    } finally {
      this.#acts -= 1;
      if (this.#acts === 0) this.#takeUpLater();
    }
  }

  /**
   * Another window may have changed the slip.
   * @param row As it was read a moment ago.
   */
  async follow(row: KeptSlip | undefined): Promise<void> {
    if (this.#isKnown(row)) return;
    await this.#next(async () => {
      await this.#saveAll();
      await this.#look();
    });
  }

  /** Waits until what is shown is on disk, and every act is done. */
  async saved(): Promise<void> {
    for (let tail: unknown; tail !== this.#tail;) {
      tail = this.#tail;
      await this.#tail;
    }
  }

  #next<T>(task: () => Promise<T>): Promise<T> {
    const done = this.#tail.then(task);
    this.#tail = done.then(
      () => undefined,
      () => undefined,
    );
    return done;
  }

  #saveBehind(): void {
    if (this.#isSaveDue) return;
    this.#isSaveDue = true;
    this.#next(async () => {
      await this.surroundings.seen();
      this.#isSaveDue = false;
      await this.#saveAll();
    }).catch(() => undefined); // Said by `onFault`; the next change or act tries again.
  }

  async #saveAll(): Promise<void> {
    try {
      while (this.#pending.length > 0) {
        const batch = [...this.#pending];
        const saved = await this.#save(batch);
        this.#pending.splice(0, batch.length);
        this.#base = saved.base;
        if (saved.isForeign) {
          this.#foreign += 1;
          this.#showAgain();
        }
        saved.refused.forEach(this.surroundings.onRefused);
      }
      this.surroundings.onFault(null);
    } catch (error) {
      this.surroundings.onFault(error);
      throw error;
    }
  }

  async #save(batch: readonly Change[]) {
    return await this.db.transaction('rw', this.db.meta, async () => {
      const { from, isForeign } = this.#ground(await this.db.read('slip'));
      const { slip, refused } = this.#changedByAll(from.slip, batch);
      const revision = from.revision + 1;
      await this.db.write('slip', { ...slip, revision });
      return { base: { slip, revision }, isForeign, refused };
    });
  }

  /** What a change is made on: the slip as it is on disk now. */
  #ground(row: KeptSlip | undefined): { readonly from: SavedSlip; readonly isForeign: boolean } {
    const { slip, revision } = this.#base;
    if (row === undefined)
      return revision === 0
        ? { from: this.#base, isForeign: false }
        : { from: { slip: emptySlip(this.surroundings.newId()), revision: 0 }, isForeign: true };
    const isOurs = row.id === slip.id && row.revision === revision;
    // Our new slip takes the place of an empty one that somebody left.
    if (isOurs || (revision === 0 && isBlank(row))) return { from: this.#base, isForeign: false };
    return { from: asSaved(row), isForeign: true };
  }

  /** Takes over what is on disk, if it is not what is known here. */
  async #look(): Promise<void> {
    const row = await this.db.read('slip');
    if (this.#isKnown(row)) return;
    this.#foreign += 1;
    this.#base =
      row === undefined
        ? { slip: emptySlip(this.surroundings.newId()), revision: 0 }
        : asSaved(row);
    this.#showAgain();
  }

  #isKnown(row: KeptSlip | undefined): boolean {
    const { slip, revision } = this.#base;
    if (row === undefined) return revision === 0;
    const isOurs = row.id === slip.id && row.revision === revision;
    return isOurs || (revision === 0 && isBlank(row));
  }

  #leave(left: OpenSlip | null, leftAt = 1): void {
    this.#base =
      left === null
        ? { slip: emptySlip(this.surroundings.newId()), revision: 0 }
        : {
            slip: left,
            revision: left.id === this.#base.slip.id ? this.#base.revision + 1 : leftAt,
          };
    this.#showAgain();
  }

  /** What was made while acts were under way is made now. */
  #takeUpLater(): void {
    const changes = this.#later;
    this.#later = [];
    for (const change of changes) {
      const refusal = this.change(change);
      if (refusal !== null) this.surroundings.onRefused(refusal);
    }
  }

  #showAgain(): void {
    this.#show(this.#changedByAll(this.#base.slip, this.#pending).slip);
  }

  #show(slip: OpenSlip): void {
    this.#shown = slip;
    this.surroundings.onShown(slip);
  }

  #changed(slip: OpenSlip, change: Change): SlipOutcome {
    const outcome = change(slip);
    if (!outcome.ok) return outcome;
    const refusal = this.surroundings.forbids(slip, outcome.slip);
    return refusal === null ? outcome : { ok: false, refusal };
  }

  #changedByAll(from: OpenSlip, changes: readonly Change[]) {
    let slip = from;
    const refused: SlipRefusal[] = [];
    for (const change of changes) {
      const outcome = this.#changed(slip, change);
      if (outcome.ok) slip = outcome.slip;
      else refused.push(outcome.refusal);
    }
    return { slip, refused };
  }
}

function asSaved({ revision, ...slip }: KeptSlip): SavedSlip {
  return { slip, revision };
}
