/**
 * The books on the command line.
 *
 *   npm run -s books -- quote | pay | share | return    works out one JSON document per line of
 *                                             standard input (docs/formats.md), one result a line
 *   npm run -s books -- replay FILE.ndjson    verifies a daybook's chains, prints its books as JSON
 *   npm run -s books -- export BUSINESS       writes a daybook as NDJSON; needs DATABASE_URL
 */
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { createInterface } from 'node:readline';
import { replay } from '../src/lib/core/books/replay';
import { SUMS, workOut, type Sum } from '../src/lib/core/formats/sums';
import { openDatabase } from '../src/lib/server/database/database';
import { select } from '../src/lib/server/database/select';
import { settingsFrom } from '../src/lib/server/settings';

const [command, argument] = process.argv.slice(2);
if (isSum(command) && argument === undefined) await workOutAll(command);
else if (command === 'replay' && argument !== undefined) process.exitCode = replayFile(argument);
else if (command === 'export' && argument !== undefined) await exportDaybook(argument);
else {
  console.error(
    'usage: books quote | pay | share | return, with JSON documents on standard input\n' +
      '       books replay FILE.ndjson\n' +
      '       books export BUSINESS',
  );
  process.exitCode = 2;
}

function isSum(text: string | undefined): text is Sum {
  return SUMS.some((sum) => sum === text);
}

/** A document that is wrong gives an error on its line, and the rest goes on. */
async function workOutAll(sum: Sum): Promise<void> {
  const lines = createInterface({ input: process.stdin, crlfDelay: Infinity });
  for await (const line of lines) {
    const isFlowing = process.stdout.write(`${JSON.stringify(workOut(sum, line))}\n`);
    if (!isFlowing) await once(process.stdout, 'drain');
  }
}

/** @returns 0 when every line was read and every chain holds, 1 otherwise. */
function replayFile(file: string): number {
  let text: string;
  try {
    text = readFileSync(file, 'utf8');
  } catch {
    console.error(`${file} cannot be read; name a file with one entry as JSON on each line.`);
    return 2;
  }
  const { books, entries, faults } = replay(text);
  console.log(JSON.stringify({ entries, faults, books }, null, 2));
  return faults.length === 0 ? 0 : 1;
}

async function exportDaybook(business: string): Promise<void> {
  const database = openDatabase(settingsFrom(process.env));
  const BATCH = 500;
  try {
    for (let after = 0; ;) {
      const rows = await select<{ position: string; entry: string }>(
        database,
        'SELECT position, entry FROM daybook_entries WHERE business = ? AND position > ? ORDER BY position LIMIT ?',
        [business, after, BATCH],
      );
      for (const { entry } of rows) process.stdout.write(`${entry}\n`);
      if (rows.length < BATCH) break;
      after = Number(rows.at(-1)?.position);
    }
  } finally {
    await database.close();
  }
}
