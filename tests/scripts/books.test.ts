/** The books on the command line: the journal of a daybook and its trial balance. */
import assert from 'node:assert/strict';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, describe, it } from 'node:test';
import { ROOT } from '../../scripts/setup/run.mjs';
import type { Entry } from '../../src/lib/core/daybook/entry';
import { DRAWER, DeviceWriter } from '../../src/lib/core/testing/arbitrary-daybook';

const folder = mkdtempSync(join(tmpdir(), 'stall-till-books-'));
after(() => rmSync(folder, { recursive: true, force: true }));

function books(command: string, lines: readonly string[]) {
  const file = join(folder, `${command}.ndjson`);
  writeFileSync(file, lines.join('\n'));
  const { status, stdout, stderr } = spawnSync(
    'node',
    ['--import', 'tsx', 'scripts/books.ts', command, file],
    { cwd: ROOT, encoding: 'utf8' },
  );
  const said = stdout.split('\n').filter((line) => line !== '');
  return { status, stderr, said: said.map((line) => JSON.parse(line) as Record<string, unknown>) };
}

const NOW = Date.UTC(2026, 10, 22, 9);
const writer = new DeviceWriter(1);
const entries: Entry[] = [
  ...writer.write({ does: 'load', item: 1, quantity: 5000 }, NOW),
  ...writer.write({ does: 'sale', goods: [[1, 2]], over: 0 }, NOW),
];
const lines = entries.map((entry) => JSON.stringify(entry));

describe('books journal', () => {
  it('prints what each entry moves, an entry a line', () => {
    const { status, said } = books('journal', lines);
    assert.equal(status, 0);
    assert.deepEqual(
      said.map(({ entry, kind, day }) => [entry, kind, day]),
      entries.map(({ id, kind }) => [id, kind, '2026-11-22']),
    );
    for (const { postings } of said) {
      const all = postings as readonly { readonly amount?: number }[];
      assert.equal(
        all.reduce((sum, { amount = 0 }) => sum + amount, 0),
        0,
      );
    }
  });

  it('says which line it cannot read, and goes on', () => {
    const { status, said, stderr } = books('journal', ['{"not": "an entry"}', ...lines]);
    assert.equal(status, 1);
    assert.equal(said.length, entries.length);
    assert.match(stderr, /^line 1: line\/not-an-entry/);
  });
});

describe('books trial', () => {
  it('prints what stands on each account, in order of name, and nothing of what came to nothing', () => {
    const { status, said } = books('trial', lines);
    assert.equal(status, 0);
    const names = said.map(({ account }) => String(account));
    assert.deepEqual(names, [...names].sort());
    assert.ok(names.includes(`drawer:${DRAWER}`) && names.includes('sales'));
    assert.ok(!names.some((name) => name.startsWith('slip:')), 'a slip that was paid is nothing');
    const goods = said.filter(({ quantity }) => quantity !== undefined);
    assert.deepEqual(
      goods.map(({ account, quantity }) => [String(account).split(':')[0], quantity]),
      [
        ['place', 3000],
        ['place', -5000],
        ['place', 2000],
      ],
    );
    const amounts = said.map(({ amount }) => Number(amount ?? 0));
    assert.equal(
      amounts.reduce((a, b) => a + b, 0),
      0,
    );
  });

  it('says what is wrong with a file that is not there', () => {
    const { status, stderr } = spawnSync(
      'node',
      ['--import', 'tsx', 'scripts/books.ts', 'trial', '/no/such/file'],
      { cwd: ROOT, encoding: 'utf8' },
    );
    assert.equal(status, 2);
    assert.match(stderr, /cannot be read/);
  });
});
