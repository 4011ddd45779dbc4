/** Everything that routes use, opened once per process. */
import { pino } from 'pino';
import { BookReader } from './books/read-books';
import { Enrolment } from './access/enrolment';
import { openDatabase, type Database } from './database/database';
import { settingsFrom } from './settings';

export interface Services {
  readonly database: Database;
  readonly books: BookReader;
  readonly enrolment: Enrolment;
}

/** Structured, one JSON object a line; never bodies, tokens or codes. */
export const log = pino({ base: null, timestamp: pino.stdTimeFunctions.isoTime });

let opened: Services | undefined;

/** @throws {Error} If the settings are not complete. */
export function services(): Services {
  if (opened === undefined) {
    const database = openDatabase(settingsFrom(process.env));
    opened = { database, books: new BookReader(database), enrolment: new Enrolment(database) };
  }
  return opened;
}

/** Closes what was opened, so that the process can end. */
export async function closeServices(): Promise<void> {
  const closing = opened;
  opened = undefined;
  await closing?.database.close();
}
