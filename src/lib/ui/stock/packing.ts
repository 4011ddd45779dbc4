/**
 * What was just put into crates, until the rows have it: shown at once, like a tap on a tag, while it is being
 * written. What other devices pack comes with the rows; nothing is added twice.
 */
import { SvelteMap } from 'svelte/reactivity';
import { packedOf, type LineNow } from '../../core/stock/list-state';
import { painted } from '../frame/painted';

/** Rows are on the screen a moment after they have been written; milliseconds. */
const MOMENT = 1000;

interface Meant {
  /** What is in the crate with it; thousandths. */
  readonly packed: number;
  readonly isMore: boolean;
  readonly isWritten: boolean;
}

export class Packing {
  /** One for each item: of hundreds of crates, only that which changes is looked at. */
  readonly #meant = new Map<string, SvelteMap<'now', Meant>>();

  /** @param seen Resolves once what has just changed is on the screen: writing it must not hold that up. */
  constructor(readonly seen: () => Promise<void> = painted) {}

  #of(item: string): SvelteMap<'now', Meant> {
    const known = this.#meant.get(item);
    if (known !== undefined) return known;
    const made = new SvelteMap<'now', Meant>();
    this.#meant.set(item, made);
    return made;
  }

  /** The line as it is with what is being written. */
  now(line: LineNow): LineNow {
    const meant = this.#of(line.item).get('now');
    if (meant === undefined) return line;
    const packed = (meant.isMore ? Math.max : Math.min)(packedOf(line), meant.packed);
    return { ...line, packed };
  }

  /** Whether what the line shows is not safe yet. */
  isBeingWritten(item: string): boolean {
    return this.#of(item).get('now')?.isWritten === false;
  }

  /**
   * Shows it while it is being written, and no longer if it was not.
   * @param quantity Thousandths; below nothing takes out again. @param write Whether it was written.
   */
  async during(line: LineNow, quantity: number, write: () => Promise<boolean>): Promise<void> {
    const packed = Math.max(line.sent, packedOf(this.now(line)) + quantity);
    const mine: Meant = { packed, isMore: quantity > 0, isWritten: false };
    const of = this.#of(line.item);
    of.set('now', mine);
    let shown = mine;
    // One that came later says more; it ends with that.
    const next = (now: Meant | null): void => {
      if (of.get('now') !== shown) return;
      if (now === null) of.delete('now');
      else of.set('now', (shown = now));
    };
    let isWritten = false;
    try {
      await this.seen();
      isWritten = await write();
    } finally {
      next(isWritten ? { ...mine, isWritten } : null);
      if (isWritten) setTimeout(() => next(null), MOMENT);
    }
  }
}
