/** The books on the command line: the journal of a daybook and its trial balance. */
import assert from 'node:assert/strict';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, describe, it } from 'node:test';
import { ROOT } from '../../scripts/setup/run.mjs';
import type { Entry } from '../../src/lib/core/daybook/entry';
import { readPlainLedger } from '../../src/lib/core/formats/plain-ledger';
import { DeviceWriter } from '../../src/lib/core/testing/arbitrary-daybook';
import { DRAWER } from '../../src/lib/core/testing/made-up-business';

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

describe('books ledger', () => {
  const run = (...args: readonly string[]) =>
    spawnSync('node', ['--import', 'tsx', 'scripts/books.ts', 'ledger', ...args], {
      cwd: ROOT,
      encoding: 'utf8',
    });
  const day = new DeviceWriter(4);
  const file = join(folder, 'ledger.ndjson');
  const all = [
    ...day.write({ does: 'event', name: 'Quay' }, NOW),
    ...day.write({ does: 'open', float: 50 }, NOW),
    ...day.write({ does: 'sale', goods: [[1, 2]], over: 5 }, NOW),
    ...day.write({ does: 'cash', from: 'safe', to: 'spent:travel', amount: 900 }, NOW),
    ...day.write(
      { does: 'parts', goods: 2, clears: 50, tip: 20, isGivenBack: false, isVoided: true },
      NOW,
    ),
    ...day.write({ does: 'for list', item: 1, quantity: 4000 }, NOW + 86_400_000),
  ];
  writeFileSync(file, all.map((entry) => JSON.stringify(entry)).join('\n'));

  it('writes double entries that are read back, balanced, of one event or all, by day or shift', () => {
    const { status, stdout } = run(file, 'quay');
    assert.equal(status, 0);
    const transactions = readPlainLedger(stdout);
    assert.deepEqual(
      transactions.map(({ day: on, what }) => [on, what]),
      [
        ['2026-11-22', 'Quay'],
        ['2026-11-23', 'Quay'],
      ],
    );
    const [first] = transactions;
    const of = (name: string) => first?.postings.find(({ account }) => account === name);
    assert.equal(of('Expenses:Spent:travel')?.amount, 900);
    assert.match(of('Revenues:Sales')?.documents ?? '', /^D4-1/);
    assert.ok(readPlainLedger(run(file, '--by', 'shift').stdout).length > 1);
  });

  it('says which events there are where it knows none of that name, and how it is used', () => {
    const none = run(file, 'Abbey');
    assert.equal(none.status, 2);
    assert.match(none.stderr, /no event "Abbey"[^]*Quay, 2026-11-22/);
    assert.equal(run(file, '--by', 'moon').status, 2);
    assert.match(run('/no/such/file').stderr, /cannot be read/);
  });

  const hasHledger = spawnSync('hledger', ['--version']).status === 0;
  it(
    'is read and checked by hledger, with every account and commodity declared',
    { skip: hasHledger ? false : 'hledger is not installed' },
    () => {
      for (const by of ['day', 'event', 'shift']) {
        const journal = join(folder, `${by}.journal`);
        writeFileSync(journal, run(file, '--by', by).stdout);
        const checked = spawnSync('hledger', ['-f', journal, 'check', '--strict'], {
          encoding: 'utf8',
        });
        assert.equal(checked.status, 0, checked.stderr);
        const total = spawnSync('hledger', ['-f', journal, 'balance', '-O', 'csv', 'travel'], {
          encoding: 'utf8',
        });
        assert.match(total.stdout, /"Expenses:Spent:travel","9\.00 GBP"/);
      }
    },
  );
});
