/**
 * Gets the database ready: migrations, the demo if asked for, fresh enrolment codes. Prints the
 * codes as JSON on its last line. Needs DATABASE_URL.
 */
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { larkmoss } from '../demo/larkmoss';
import { pinwheel } from '../demo/pinwheel';
import { seed } from '../demo/seed';
import { inOrder } from '../src/lib/core/people/in-order';
import { clearSpent } from '../src/lib/server/access/clear-spent';
import { Enrolment } from '../src/lib/server/access/enrolment';
import { BookReader } from '../src/lib/server/books/read-books';
import { makeNewSums } from '../src/lib/server/books/make-new-sums';
import { openDatabase } from '../src/lib/server/database/database';
import { migrate } from '../src/lib/server/database/migrate';
import { moveCountersOn } from '../src/lib/server/daybook/move-counters-on';
import { select } from '../src/lib/server/database/select';
import { settingsFrom } from '../src/lib/server/settings';
import { flagsOf } from './setup/flags.mjs';

/** Codes that the start command prints hold for a day; the application's own for minutes. */
const LIFETIME = 24 * 60 * 60 * 1000;
const HALF_AN_HOUR = 30 * 60 * 1000;

const flags = flagsOf({
  demo: { type: 'boolean' },
  'after-unclean-stop': { type: 'boolean' },
  /** A folder for statements of the demo's bank that nobody has taken in yet. */
  statements: { type: 'string', default: '' },
  /** How many codes for each business. */
  codes: { type: 'string', default: '2' },
});
/** Of the made-up people only; nobody else's PIN is known to anybody. */
const accounts = new Map([larkmoss, pinwheel].map(({ id, account }) => [id, account]));
const pins = new Map(
  [larkmoss, pinwheel].flatMap((each) => each.staff).map(({ id, pin }) => [id, pin]),
);
const settings = settingsFrom(process.env);
// A new index of years of trade takes its time.
const patient = openDatabase({ ...settings, statementTimeout: HALF_AN_HOUR });
try {
  await migrate(patient.sequelize);
} finally {
  await patient.close();
}
const database = openDatabase(settings);
try {
  await makeNewSums(database, (done, all) => {
    if (done % 10_000 === 0) console.error(`new sums: ${String(done)} of ${String(all)} entries`);
  });
  if (flags['after-unclean-stop'] === true) await moveCountersOn(database);
  const now = Date.now();
  if (flags.demo === true) {
    for (const demo of [larkmoss, pinwheel]) {
      const files = await seed(database, demo, now);
      const folder = flags.statements;
      if (folder === '' || files.length === 0) continue;
      mkdirSync(folder, { recursive: true });
      for (const { name, text } of files) writeFileSync(join(folder, name), text);
    }
  }
  await clearSpent(database, now);
  const enrolment = new Enrolment(database);
  const books = new BookReader(database);
  const businesses = await select<{ business: string }>(
    database,
    'SELECT business FROM daybook_counters',
    [],
  );
  const ways = [];
  for (const { business } of businesses) {
    const [named] = await books.rows(business, 'businesses');
    const staff = inOrder(await books.rows(business, 'staff'));
    const codes: string[] = [];
    for (let n = 0; n < Number(flags.codes); n += 1)
      codes.push(await enrolment.makeCode(business, now, LIFETIME));
    ways.push({
      business: named?.name ?? business,
      people: staff.map(({ id, name, role }) => {
        const pin = pins.get(id);
        return `${name} (${role}${pin === undefined ? '' : `, PIN ${pin}`})`;
      }),
      account: accounts.get(business) ?? null,
      codes,
    });
  }
  ways.sort((a, b) => (a.business < b.business ? -1 : 1));
  console.log(JSON.stringify(ways));
} finally {
  await database.close();
}
