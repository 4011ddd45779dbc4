import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { documentsToFind, fittingDocuments, MOST_OF_A_KIND, type FoundDocument } from './documents';

const one = (more: Partial<FoundDocument>): FoundDocument => ({
  ...{ kind: 'list', id: 'x', href: '/', number: '', title: '', about: [], at: '', amount: null },
  ...more,
});
const all = [
  one({
    id: 'a',
    number: 'O2-1',
    title: 'Order',
    about: ['Fernwood Nursery'],
    at: '2026-11-20T09',
  }),
  one({ id: 'b', number: 'O2-11', title: 'Order', about: ['Café Oak'], at: '2026-11-22T09' }),
  one({
    id: 'c',
    kind: 'read',
    number: 'D3-R2',
    title: 'Drawer 1',
    at: '2026-11-22T18',
    amount: 12_345,
  }),
  one({ id: 'd', kind: 'item', title: 'Fern', about: ['5099999000011'] }),
];
const found = (typed: string): readonly string[] =>
  fittingDocuments(documentsToFind(all), typed, 'GBP').map(({ id }) => id);

describe('documents that fit', () => {
  it('are found by number, words, parts of words, amounts and days, accents or not', () => {
    assert.deepEqual(found('o2-1'), ['b', 'a']);
    assert.deepEqual(found('D3-R2'), ['c']);
    assert.deepEqual(found('cafe'), ['b']);
    assert.deepEqual(found('FERN'), ['a', 'd']);
    assert.deepEqual(found('wood order'), ['a']);
    assert.deepEqual(found('123.45'), ['c']);
    assert.deepEqual(found('2026-11-22'), ['c', 'b']);
    assert.deepEqual(found('50999990'), ['d']);
  });

  it('are none for nothing, for a letter, or for words that nothing says', () => {
    for (const typed of ['', ' ', 'o', 'zebra', ', ']) assert.deepEqual(found(typed), [], typed);
  });

  it('are at most so many of a kind, and whose number it is comes before what only says it', () => {
    const many = Array.from({ length: 50 }, (_, n) =>
      one({
        id: String(n),
        title: 'Order',
        at: `2026-11-${String((n % 28) + 1).padStart(2, '0')}`,
      }),
    );
    assert.equal(fittingDocuments(documentsToFind(many), 'order', 'GBP').length, MOST_OF_A_KIND);
    const named = [
      one({ id: 'says', title: 'about U1-7', at: '2026-12-01' }),
      one({ id: 'is', number: 'U1-7' }),
    ];
    assert.deepEqual(
      fittingDocuments(documentsToFind(named), 'u1-7', 'GBP').map(({ id }) => id),
      ['is', 'says'],
    );
  });
});
