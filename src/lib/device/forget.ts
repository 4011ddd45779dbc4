/**
 * A device that had no network for too long forgets what it knows of the business, and keeps what it had
 * not sent. When the server answers again, it sends that and starts from the rows as they are then.
 */
import { NO_CHOICES, type DeviceDatabase } from './database';
import { takeIn } from './enrol';
import { NO_STANDING } from './receive';
import { clearRows } from './shut-out';
import { portionAfter } from './sync/portion';
import type { Transport } from './sync/transport';

/** Safe to do again. */
export async function forgetAll(db: DeviceDatabase): Promise<void> {
  await db.transaction('rw', db.tables, async () => {
    await db.write('forgotten', 'by itself');
    await clearRows(db);
  });
}

export interface CameBack {
  readonly isBack: boolean;
  /** Entries that are still to be sent. */
  readonly left: number;
}

/** Sends what is left and takes the business in again; stops where nobody answers, and can be done again. */
export async function comeBack(db: DeviceDatabase, transport: Transport): Promise<CameBack> {
  const identity = await db.read('identity');
  const head = (await db.read('head'))?.seq ?? 0;
  if (identity === undefined) return { isBack: false, left: 0 };
  for (;;) {
    const sent = (await db.read('standing'))?.sent ?? 0;
    const batch = await portionAfter(db, sent, transport.portion);
    if (batch.length === 0) break;
    const asked = await transport.push(batch);
    if (asked.came !== 'answer' || asked.answer.have <= sent)
      return { isBack: false, left: head - sent };
    const { have } = asked.answer;
    await db.transaction('rw', db.meta, async () => {
      const standing = (await db.read('standing')) ?? NO_STANDING;
      await db.write('standing', { ...standing, sent: have });
    });
  }
  const started = await transport.start();
  if (started.came !== 'answer') return { isBack: false, left: 0 };
  await takeIn(db, identity, started.answer, NO_CHOICES, null, async () => {
    const standing = (await db.read('standing')) ?? NO_STANDING;
    // The rows hold all that this device wrote: none of it is applied again.
    await db.write('applied', head);
    await db.write('standing', { ...standing, sent: head, heardAt: Date.now() });
    await db.meta.delete('forgotten');
  });
  return { isBack: true, left: 0 };
}
