/** How much of its own a device sends at once. */
import { bytesOf } from '../../core/daybook/entry-size';
import type { Entry } from '../../core/daybook/entry';
import { MOST_PUSHED, PUSH_BYTES } from '../../core/daybook/sync-messages';
import { ownEntriesAfter } from '../daybook';
import type { DeviceDatabase } from '../database';

/**
 * How many entries go at once over this network: a day's sales that never get across a weak one in one go
 * do in small ones, and what was answered is not sent again.
 */
export class PortionSize {
  #most = MOST_PUSHED;

  get most(): number {
    return this.#most;
  }

  /** Hears whether anything came back of so many entries. */
  hear(came: 'answer' | 'refusal' | 'nothing', entries: number): void {
    this.#most =
      came === 'nothing'
        ? Math.max(1, Math.floor(Math.min(this.#most, entries) / 4))
        : Math.min(MOST_PUSHED, this.#most * 2);
  }
}

/** The next own entries after a `seq`, as many as one request takes; always one if there is any. */
export async function portionAfter(
  db: DeviceDatabase,
  after: number,
  { most }: Pick<PortionSize, 'most'>,
): Promise<Entry[]> {
  const next = (await ownEntriesAfter(db, after, most)).slice(0, most);
  const portion: Entry[] = [];
  let bytes = 0;
  for (const entry of next) {
    bytes += bytesOf(entry);
    if (portion.length > 0 && bytes > PUSH_BYTES) break;
    portion.push(entry);
  }
  return portion;
}
