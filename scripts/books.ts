/**
 * The books on the command line.
 *
 *   npm run -s books -- quote | pay | share | return | settle    works out one JSON document per line of
 *                                             standard input (docs/formats.md), one result a line
 *   npm run -s books -- replay FILE.ndjson    verifies a daybook's chains, prints its books as JSON
 *   npm run -s books -- journal FILE.ndjson   what each entry moves, one JSON document a line
 *   npm run -s books -- trial FILE.ndjson     what stands on each account in the end, one a line
 *   npm run -s books -- ledger FILE.ndjson [EVENT] [--by day|event|shift]    its double entries, as plain-text
 *                                             accounting reads them; of one event, by id or name, or of all
 *   npm run -s books -- verify-settled FILE.ndjson EVENT    whether what an event was settled with is still so
 *   npm run -s books -- export BUSINESS       writes a daybook as NDJSON; needs DATABASE_URL
 */
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { createInterface } from 'node:readline';
import { parseArgs } from 'node:util';
import { Books } from '../src/lib/core/books/books';
import { readDaybook, replay, type ReadDaybook } from '../src/lib/core/books/replay';
import { entrySchema } from '../src/lib/core/daybook/entry';
import { plainLedger } from '../src/lib/core/formats/plain-ledger';
import { jsonOrNull } from '../src/lib/core/formats/json-or-null';
import { SUMS, workOut, type Sum } from '../src/lib/core/formats/sums';
import { journalOf } from '../src/lib/core/journal';
import { Trial } from '../src/lib/core/journal/trial';
import { ledgerOf } from '../src/lib/core/ledger/ledger';
import { LEDGER_BY, type LedgerBy } from '../src/lib/core/ledger/ledger-by';
import { verifySettled } from '../src/lib/core/settle/verify-settled';
import { openDatabase } from '../src/lib/server/database/database';
import { select } from '../src/lib/server/database/select';
import { settingsFrom } from '../src/lib/server/settings';

const {
  values: { by },
  positionals: [command, argument, event],
} = parseArgs({ options: { by: { type: 'string' } }, allowPositionals: true });
if (isSum(command) && argument === undefined) await workOutAll(command);
else if (command === 'replay' && argument !== undefined) process.exitCode = replayFile(argument);
else if (command === 'journal' && argument !== undefined) process.exitCode = journalFile(argument);
else if (command === 'trial' && argument !== undefined) process.exitCode = trialFile(argument);
else if (command === 'ledger' && argument !== undefined && isLedgerBy(by))
  process.exitCode = ledgerFile(argument, event, by);
else if (command === 'verify-settled' && argument !== undefined && event !== undefined)
  process.exitCode = verifyFile(argument, event);
else if (command === 'export' && argument !== undefined) await exportDaybook(argument);
else {
  console.error(
    'usage: books quote | pay | share | return | settle, with JSON documents on standard input\n' +
      '       books replay FILE.ndjson\n' +
      '       books journal FILE.ndjson\n' +
      '       books trial FILE.ndjson\n' +
      '       books ledger FILE.ndjson [EVENT] [--by day|event|shift]\n' +
      '       books verify-settled FILE.ndjson EVENT\n' +
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

/** The text of a daybook; null, and said why, where there is none. */
function textOf(file: string): string | null {
  try {
    return readFileSync(file, 'utf8');
  } catch {
    console.error(`${file} cannot be read; name a file with one entry as JSON on each line.`);
    return null;
  }
}

/** @returns 0 when every line was read and every chain holds, 1 otherwise. */
function replayFile(file: string): number {
  const text = textOf(file);
  if (text === null) return 2;
  const { books, entries, faults } = replay(text);
  console.log(JSON.stringify({ entries, faults, books }, null, 2));
  return faults.length === 0 ? 0 : 1;
}

/** A line that cannot be read is said on standard error, and the rest goes on. */
function entriesOf(text: string): ReadDaybook {
  const read = readDaybook(text);
  for (const { line, code, message } of read.faults)
    console.error(`line ${String(line)}: ${code}, ${message}`);
  return read;
}

/** @returns 0 when every line was read and every chain holds, 1 otherwise. */
function journalFile(file: string): number {
  const text = textOf(file);
  if (text === null) return 2;
  const { known, faults } = entriesOf(text);
  for (const entry of known) {
    const { entry: id, kind, event, day, postings } = journalOf(entry);
    console.log(JSON.stringify({ entry: id, kind, event, day, postings }));
  }
  return faults.length === 0 ? 0 : 1;
}

/** @returns 0 when every line was read and the amounts add up to nothing, 1 otherwise. */
function trialFile(file: string): number {
  const text = textOf(file);
  if (text === null) return 2;
  const { known, faults } = entriesOf(text);
  const trial = new Trial();
  for (const entry of known) trial.add(journalOf(entry).postings);
  for (const balance of trial.balances()) console.log(JSON.stringify(balance));
  if (trial.total !== 0)
    console.error(`amounts must add up to nothing; they add up to ${String(trial.total)}`);
  return trial.total === 0 && faults.length === 0 ? 0 : 1;
}

function isLedgerBy(text: string | undefined): text is LedgerBy | undefined {
  return text === undefined || LEDGER_BY.some((each) => each === text);
}

/** @returns 0 when every line was read and every chain holds, 1 otherwise, 2 where there is no such file or event. */
function ledgerFile(file: string, named: string | undefined, by: LedgerBy = 'day'): number {
  const text = textOf(file);
  if (text === null) return 2;
  const { known, changes, faults } = entriesOf(text);
  const books = new Books();
  books.apply(changes);
  const event = named === undefined ? undefined : eventCalled(named, books);
  if (event === null) return 2;
  const options = { by, ...(event === undefined ? {} : { event }) };
  process.stdout.write(plainLedger(ledgerOf(known, books, options)));
  return faults.length === 0 ? 0 : 1;
}

/** @returns 0 when all is as it was settled, 1 otherwise, 2 where there is no such file or event. */
function verifyFile(file: string, named: string): number {
  const text = textOf(file);
  if (text === null) return 2;
  const { known, changes, faults } = entriesOf(text);
  const books = new Books();
  books.apply(changes);
  const event = eventCalled(named, books);
  if (event === null) return 2;
  const all = text.split('\n').flatMap((line) => {
    const read = entrySchema.safeParse(jsonOrNull(line));
    return read.success ? read.data : [];
  });
  const { entry, entries, faults: wrong } = verifySettled(all, known, event);
  for (const fault of wrong) console.error(JSON.stringify(fault));
  const isSo = wrong.length === 0 && faults.length === 0;
  console.log(
    JSON.stringify({
      event,
      settled: entry?.at ?? null,
      digest: entry?.body.digest ?? null,
      entries,
      isAsSettled: isSo,
    }),
  );
  return isSo ? 0 : 1;
}

/** An event by its id, its name or its short name; null, and said why, where it is none or several. */
function eventCalled(named: string, books: Books): string | null {
  const all = books.rows('events');
  const called = named.trim().toLowerCase();
  const found = all.filter(({ id, name, short }) =>
    [id, name.toLowerCase(), short.toLowerCase()].includes(called),
  );
  const [only] = found;
  if (only !== undefined && found.length === 1) return only.id;
  const list = (found.length === 0 ? all : found)
    .map(
      ({ id, name, days }) => `  ${id}  ${name}${days[0] === undefined ? '' : `, ${days[0].date}`}`,
    )
    .join('\n');
  console.error(
    found.length === 0
      ? `there is no event "${named}" in this daybook; it has\n${list}`
      : `several events are called "${named}"; name one by its id\n${list}`,
  );
  return null;
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
