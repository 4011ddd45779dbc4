/** Everything that routes use, opened once per process. */
import { pino } from 'pino';
import { BookReader } from './books/read-books';
import { CalendarAddresses } from './access/calendar-addresses';
import { Accounts } from './access/accounts';
import { Enrolment } from './access/enrolment';
import { Limits } from './access/limits';
import { Passkeys } from './access/passkeys';
import { httpAcquirer, type Acquirer } from './cards/acquirer';
import { openDatabase, type Database } from './database/database';
import { smtpMailer, type Mailer } from './mail/mailer';
import { settingsFrom } from './settings';
import { httpTexts, type TextSender } from './texts/text-sender';

export interface Services {
  readonly database: Database;
  readonly books: BookReader;
  readonly enrolment: Enrolment;
  readonly accounts: Accounts;
  readonly passkeys: Passkeys;
  readonly calendars: CalendarAddresses;
  readonly limits: Limits;
  /** Null if nobody takes cards for this server. */
  readonly acquirer: Acquirer | null;
  /** Null if this server sends no mail. */
  readonly mailer: Mailer | null;
  /** Null if it sends no text messages. */
  readonly texts: TextSender | null;
}

/** Structured, one JSON object a line; never bodies, tokens or codes. */
export const log = pino({ base: null, timestamp: pino.stdTimeFunctions.isoTime });

let opened: Services | undefined;

/** @throws {Error} If the settings are not complete. */
export function services(): Services {
  if (opened === undefined) {
    const settings = settingsFrom(process.env);
    const database = openDatabase(settings);
    const enrolment = new Enrolment(database);
    opened = {
      database,
      books: new BookReader(database),
      enrolment,
      accounts: new Accounts(database, enrolment),
      passkeys: new Passkeys(database),
      calendars: new CalendarAddresses(database),
      limits: new Limits(database),
      acquirer:
        settings.acquirer === null
          ? null
          : httpAcquirer(settings.acquirer.url, settings.acquirer.key),
      mailer: settings.smtpUrl === null ? null : smtpMailer(settings.smtpUrl, settings.mailFrom),
      texts: settings.texts === null ? null : httpTexts(settings.texts.url, settings.texts.key),
    };
  }
  return opened;
}

/** Closes what was opened, so that the process can end. */
export async function closeServices(): Promise<void> {
  const closing = opened;
  opened = undefined;
  closing?.mailer?.close();
  await closing?.database.close();
}
