/**
 * Throws the books away and works them out again from the daybook, business by business. Selling
 * goes on meanwhile; what devices send waits for the end of it. Needs DATABASE_URL, or a start
 * command that is running on this folder.
 */
import { existsSync, readFileSync } from 'node:fs';
import { openDatabase } from '../src/lib/server/database/database';
import { select } from '../src/lib/server/database/select';
import { rebuild } from '../src/lib/server/daybook/rebuild';
import { settingsFrom } from '../src/lib/server/settings';

const running = `${process.env['STALL_TILL_DATA'] ?? '.data'}/running.json`;
const env = { ...process.env };
if (env['DATABASE_URL'] === undefined && existsSync(running)) {
  const { databaseUrl } = JSON.parse(readFileSync(running, 'utf8')) as { databaseUrl: string };
  env['DATABASE_URL'] = databaseUrl;
}
const database = openDatabase(settingsFrom(env));
try {
  const all = 'SELECT business FROM daybook_counters ORDER BY business';
  for (const { business } of await select<{ business: string }>(database, all, [])) {
    const { entries, kept } = await rebuild(database, business, (done, of) => {
      if (process.stdout.isTTY) process.stdout.write(`\r${business}: ${done} of ${of} entries`);
    });
    const clear = process.stdout.isTTY ? '\r' : '';
    console.log(`${clear}${business}: ${entries} entries worked out again, ${kept} kept unapplied`);
  }
} finally {
  await database.close();
}
