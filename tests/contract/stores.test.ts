/** One contract for every store: memory, IndexedDB in Chromium and MariaDB give the same rows. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { chromium, type Browser, type Page } from '@playwright/test';
import { build } from 'esbuild';
import fc from 'fast-check';
import { Books } from '../../src/lib/core/books/books';
import { changesOf } from '../../src/lib/core/books/changes';
import { keyOf, untouched, type Field } from '../../src/lib/core/books/table-spec';
import { isOnDevice, tables, tableNames } from '../../src/lib/core/books/tables';
import type { Entry } from '../../src/lib/core/daybook/entry';
import { readEntry } from '../../src/lib/core/daybook/read-entry';
import { journalOf } from '../../src/lib/core/journal';
import { foldSums, sumNames, sumSpecs } from '../../src/lib/core/journal/sums';
import { arbitraryDaybook } from '../../src/lib/core/testing/arbitrary-daybook';
import { idOf } from '../../src/lib/core/testing/made-up-business';
import { applyChanges } from '../../src/lib/server/books/apply-changes';
import { BookReader } from '../../src/lib/server/books/read-books';
import { bookModels, sqlTable, valueFor } from '../../src/lib/server/database/book-tables';
import { select } from '../../src/lib/server/database/select';
import { chromiumOptions } from '../support/chromium';
import { testDatabase, type TestDatabase } from '../support/test-database';

type AllRows = Record<string, object[]>;
let t: TestDatabase;
let books: BookReader;
let browser: Browser;
let page: Page;

before(async () => {
  t = await testDatabase();
  books = new BookReader(t.database);
  const harness = await build({
    entryPoints: ['tests/contract/indexeddb-harness.ts'],
    bundle: true,
    write: false,
    format: 'iife',
    target: 'es2022',
  });
  browser = await chromium.launch(await chromiumOptions());
  page = await browser.newPage();
  await page.route('**/*', (route) =>
    route.fulfill({ contentType: 'text/html', body: '<!doctype html>' }),
  );
  await page.goto('http://127.0.0.1/');
  await page.addScriptTag({ content: harness.outputFiles[0]!.text });
});
after(async () => {
  await browser.close();
  await t.end();
});

const changesIn = (entry: Entry) => {
  const read = readEntry(entry);
  assert.ok(read.ok);
  return changesOf(read.entry);
};

function inMemory(entries: readonly Entry[]): AllRows {
  const all = new Books();
  for (const entry of entries) all.apply(changesIn(entry));
  return Object.fromEntries(tableNames.map((table) => [table, all.rows(table)]));
}

const inIndexedDb = async (entries: readonly Entry[]): Promise<AllRows> =>
  await page.evaluate(
    async (given) =>
      await (window as unknown as { rowsAfter(e: unknown): Promise<AllRows> }).rowsAfter(given),
    entries as unknown[],
  );

let businesses = 0;
/** In batches of four, as a push would; each run as a business of its own. */
async function inMariaDb(entries: readonly Entry[]): Promise<AllRows> {
  const business = idOf(900, (businesses += 1));
  for (let at = 0; at < entries.length; at += 4) {
    const changes = entries.slice(at, at + 4).flatMap(changesIn);
    await t.database.transaction((transaction) =>
      applyChanges(t.database.sequelize, business, changes, transaction),
    );
  }
  return await books.all(business);
}

/** Rows by key, each as text with its fields in order. */
function comparable(all: AllRows): Record<string, Record<string, string>> {
  return Object.fromEntries(
    tableNames.map((table) => [
      table,
      Object.fromEntries(
        (all[table] ?? [])
          .map((row): [string, string] => [
            keyOf(tables[table], row as Record<string, unknown>),
            JSON.stringify(Object.entries(row).sort(([a], [b]) => (a < b ? -1 : 1))),
          ])
          .sort(([a], [b]) => (a < b ? -1 : 1)),
      ),
    ]),
  );
}

/** Rows of sums that are not nothing. */
const sumsIn = (rows: ReturnType<typeof comparable>): Record<string, readonly string[]> =>
  Object.fromEntries(
    sumNames.map((name) => [
      name,
      Object.values(rows[name] ?? {}).filter((text) => {
        const row = Object.fromEntries(JSON.parse(text) as [string, unknown][]);
        return Object.keys(sumSpecs[name].fields).some((field) => row[field] !== 0);
      }),
    ]),
  );

/** The same, of the journal alone. */
function sumsOfJournal(entries: readonly Entry[]): Record<string, readonly string[]> {
  const journal = entries.flatMap((entry) => {
    const read = readEntry(entry);
    return read.ok ? [journalOf(read.entry)] : [];
  });
  const rows: AllRows = {};
  for (const { sum, key, fields } of foldSums(journal))
    (rows[sum] ??= []).push({ ...untouched(tables[sum], key), ...fields });
  return sumsIn(comparable(rows));
}

/** A device has none of what only the server reads. */
const onDevice = (all: ReturnType<typeof comparable>): ReturnType<typeof comparable> =>
  Object.fromEntries(
    tableNames.map((table) => [table, isOnDevice(table) ? (all[table] ?? {}) : {}]),
  );

describe('memory, IndexedDB and MariaDB', () => {
  it('give the same rows for any daybook', async () => {
    await fc.assert(
      fc.asyncProperty(arbitraryDaybook, async (entries) => {
        const memory = comparable(inMemory(entries));
        assert.deepEqual(sumsIn(memory), sumsOfJournal(entries));
        assert.deepEqual(comparable(await inIndexedDb(entries)), onDevice(memory));
        assert.deepEqual(comparable(await inMariaDb(entries)), memory);
      }),
      { numRuns: 25 },
    );
  });

  it('give the same rows in any order', async () => {
    await fc.assert(
      fc.asyncProperty(arbitraryDaybook, async (entries) => {
        const backwards = [...entries].reverse();
        const memory = comparable(inMemory(entries));
        assert.deepEqual(comparable(await inIndexedDb(backwards)), onDevice(memory));
        assert.deepEqual(comparable(await inMariaDb(backwards)), memory);
      }),
      { numRuns: 10 },
    );
  });

  it('have the same columns: those the core describes, the migrations made, the models read', async () => {
    const models = bookModels(t.database.sequelize);
    for (const table of tableNames) {
      const all = await select<{ Field: string; Default: string | null; Extra: string }>(
        t.database,
        `SHOW COLUMNS FROM ${sqlTable(table)}`,
        [],
      );
      // What MariaDB works out of other columns, to look up by, is nobody's to write.
      const columns = all.filter(({ Extra }) => !Extra.includes('GENERATED'));
      // What a record holds of which another group was set first.
      if (tables[table].way === 'records') {
        const first = Object.fromEntries(
          columns.map(({ Field, Default }) => [Field, Default?.replace(/^'(.*)'$/, '$1') ?? null]),
        );
        for (const [field, spec] of Object.entries<Field<unknown>>(tables[table].fields)) {
          if (tables[table].key.includes(field)) continue;
          const said = valueFor(spec, spec.initial);
          assert.equal(first[field], said === null ? null : String(said), `${table}.${field}`);
        }
      }
      const described = ['business', ...Object.keys(tables[table].fields)].sort();
      assert.deepEqual(columns.map(({ Field }) => Field).sort(), described, table);
      assert.deepEqual(Object.keys(models[table].getAttributes()).sort(), described, table);
    }
  });
});
