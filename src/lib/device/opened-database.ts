import { DeviceDatabase } from './database';

let opened: DeviceDatabase | undefined;

/** This browser's database; one connection for the whole page. */
export function openedDatabase(): DeviceDatabase {
  opened ??= new DeviceDatabase();
  return opened;
}
