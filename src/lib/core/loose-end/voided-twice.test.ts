import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { Books } from '../books/books';
import { changesOf } from '../books/changes';
import type { Draft } from '../daybook/chain';
import { readEntry } from '../daybook/read-entry';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { idOf } from '../testing/made-up-business';
import { undoSecondVoid, voidedTwice } from './voided-twice';

const NOW = Date.UTC(2026, 10, 22, 9);

/** What two devices wrote that each voided the same sale, out of touch. */
function twice() {
  const writer = new DeviceWriter(1);
  const books = new Books();
  const say = (drafts: readonly Draft[], at: number): void => {
    for (const entry of writer.append(drafts, NOW + at)) {
      const read = readEntry(entry);
      assert.ok(read.ok, JSON.stringify(read));
      books.apply(changesOf(read.entry));
    }
  };
  const what = { goods: 3, clears: 50, tip: 20, isGivenBack: false, isVoided: true } as const;
  const all = writer.parts(what, NOW);
  say(all.slice(0, -1), 0);
  const before = JSON.stringify(books.toJSON());
  say(all.slice(-1), 1000);
  const once = sums(books);
  say([{ ...all.at(-1)!, id: idOf(90, 1) }], 2000);
  return { books, say, once, writer, before };
}

/** All sums: what is facts, or says that something happened, is left out. */
const sums = (books: Books): string => {
  const all = books.toJSON() as Record<string, unknown>;
  return JSON.stringify(
    Object.entries(all)
      .filter(([table]) => /Totals|Hours|Items|Taxes|Ways|Tips|Sums|stock$/.test(table))
      .sort(),
  );
};

describe('a sale that was voided twice', () => {
  it('is found, and put right to the last figure by taking the second void back', () => {
    const { books, say, once, writer } = twice();
    const found = voidedTwice(books.rows('voids'), books.rows('voidsUndone'));
    assert.deepEqual([found.length, found[0]?.voids.length], [1, 2]);
    assert.notEqual(sums(books), once);
    const [sale] = books.rows('sales');
    const command = {
      newId: writer.newId,
      sale: sale!,
      lines: books.rows('saleLines'),
      payments: books.rows('payments'),
      voids: books.rows('voids'),
      undone: books.rows('voidsUndone'),
      settlements: [],
    };
    assert.deepEqual(undoSecondVoid({ ...command, reason: ' ' }), {
      ok: false,
      refusal: { code: 'looseEnd/no-reason' },
    });
    const undone = undoSecondVoid({ ...command, reason: 'both had voided it' });
    assert.ok(undone.ok);
    say(undone.drafts, 3000);
    assert.equal(sums(books), once);
    assert.deepEqual(voidedTwice(books.rows('voids'), books.rows('voidsUndone')), []);
    assert.deepEqual(
      books.rows('settlements').map(({ looseEnd }) => looseEnd),
      [`entry:${idOf(90, 1)}`],
    );
    assert.equal(
      undoSecondVoid({ ...command, undone: books.rows('voidsUndone'), reason: 'again' }).ok,
      false,
    );
  });
});
