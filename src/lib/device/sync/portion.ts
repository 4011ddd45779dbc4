/** How much of its own a device sends at once. */
import { bytesOf } from '../../core/daybook/entry-size';
import type { Entry } from '../../core/daybook/entry';
import { MOST_PUSHED, PUSH_BYTES } from '../../core/daybook/sync-messages';
import { ownEntriesAfter } from '../daybook';
import type { DeviceDatabase } from '../database';

/** The next own entries after a `seq`, as many as one request takes; always one if there is any. */
export async function portionAfter(db: DeviceDatabase, after: number): Promise<Entry[]> {
  const next = (await ownEntriesAfter(db, after, MOST_PUSHED)).slice(0, MOST_PUSHED);
  const portion: Entry[] = [];
  let bytes = 0;
  for (const entry of next) {
    bytes += bytesOf(entry);
    if (portion.length > 0 && bytes > PUSH_BYTES) break;
    portion.push(entry);
  }
  return portion;
}
