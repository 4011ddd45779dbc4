/** Which papers this device has made: the second of one says so. */
import type { DeviceDatabase } from '../database';

/** As many as are remembered; what is older prints as the first. */
const MOST = 500;

/** Notes that it is printed. @returns Whether it was before. @param what The document; of a sale, its form and for whom of several. */
export async function notePrinted(db: DeviceDatabase, what: string): Promise<boolean> {
  return await db.transaction('rw', db.meta, async () => {
    const before = (await db.read('printed')) ?? [];
    if (before.includes(what)) return true;
    await db.write('printed', [...before, what].slice(-MOST));
    return false;
  });
}

export const printedName = (sale: string, isGift: boolean, share: number): string =>
  `${sale}${isGift ? ' gift' : ''}${share === 0 ? '' : ` ${String(share)}`}`;
