import { DeviceDatabase } from './database';

let opened: DeviceDatabase | undefined;

/** This browser's database; one connection for the whole page. */
export function openedDatabase(): DeviceDatabase {
  if (opened === undefined) {
    opened = new DeviceDatabase();
    void openOneByOne(opened);
  }
  return opened;
}

/**
 * A browser puts a page that is left to sleep, to show it at once when somebody comes back. One that
 * fell asleep while the database was being made would keep every later page waiting for it. Asking
 * for a lock that the sleeper holds makes the browser end the sleeper.
 */
async function openOneByOne(db: DeviceDatabase): Promise<void> {
  await navigator.locks.request('stall-till-opening', () => db.open().catch(() => undefined));
}
