/**
 * Keeps the open slip through reloads and dead batteries. All windows share the one slip; its
 * revision tells whose change is the latest.
 */
import type { OpenSlip } from '../core/slip/open-slip';
import type { DeviceDatabase, KeptSlip } from './database';

/** What became of a save. */
export type Saved =
  | { readonly kept: true; readonly revision: number }
  /** Another window rang it up, or began one of its own. */
  | { readonly kept: false; readonly current: KeptSlip | undefined };

/** The slip as it was kept; followed, it is read again also after a sale has taken it away. */
export async function readSlip(db: DeviceDatabase): Promise<KeptSlip | undefined> {
  const [slip] = await Promise.all([db.read('slip'), db.read('applied')]);
  return slip;
}

/**
 * Saves the slip unless it is gone.
 * @param revision The revision last saved or read; 0 for a slip that was never saved.
 */
export async function saveSlip(
  db: DeviceDatabase,
  slip: OpenSlip,
  revision: number,
): Promise<Saved> {
  return await db.transaction('rw', db.meta, async (): Promise<Saved> => {
    const current = await db.read('slip');
    const isGone = revision > 0 && current === undefined;
    const isAnother = current !== undefined && current.id !== slip.id && current.lines.length > 0;
    if (isGone || isAnother) return { kept: false, current };
    const next = Math.max(revision, current?.revision ?? 0) + 1;
    await db.write('slip', { ...slip, revision: next });
    return { kept: true, revision: next };
  });
}
