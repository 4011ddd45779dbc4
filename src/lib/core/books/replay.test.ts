import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { changesOf } from './changes';
import { Books } from './books';
import { replay } from './replay';
import { readEntry } from '../daybook/read-entry';
import { arbitraryDaybook, DeviceWriter } from '../testing/arbitrary-daybook';
import type { Entry } from '../daybook/entry';

const ndjson = (entries: readonly Entry[]): string =>
  entries.map((entry) => `${JSON.stringify(entry)}\n`).join('');
const now = Date.UTC(2026, 10, 22, 9);
const writer = new DeviceWriter(1);
const three = [1, 2, 3].flatMap((quantity) =>
  writer.write({ does: 'load', item: 1, quantity: quantity * 1000 }, now),
);

describe('replaying a daybook', () => {
  it('gives the books that applying the entries gives', () => {
    fc.assert(
      fc.property(arbitraryDaybook, (entries) => {
        const books = new Books();
        for (const entry of entries) {
          const read = readEntry(entry);
          if (read.ok) books.apply(changesOf(read.entry));
        }
        const replayed = replay(ndjson(entries));
        assert.deepEqual(replayed.faults, []);
        assert.equal(replayed.entries, entries.length);
        assert.deepEqual(replayed.books.toJSON(), books.toJSON());
      }),
      { numRuns: 30 },
    );
  });

  it('says which line is not an entry, and reads on', () => {
    const { faults, entries } = replay(
      `${ndjson(three.slice(0, 2))}{half\n${ndjson(three.slice(2))}`,
    );
    assert.deepEqual(
      [entries, faults.map(({ line, code }) => [line, code])],
      [3, [[3, 'line/not-an-entry']]],
    );
  });

  it('says where a chain is broken', () => {
    const { faults } = replay(ndjson([three[0]!, three[2]!]));
    assert.deepEqual(
      faults.map(({ line, code }) => [line, code]),
      [[2, 'chain/gap']],
    );
  });

  it('notices a figure that was changed', () => {
    const changed = ndjson(three).replace('"quantity":2000', '"quantity":9000');
    assert.deepEqual(
      replay(changed).faults.map(({ code }) => code),
      ['chain/hash-wrong'],
    );
  });
});
