import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { keepRow, keepSame } from './keep-same';

interface Row {
  readonly id: string;
  readonly much?: number;
  readonly note?: string;
}
const same = (before: readonly Row[], now: readonly Row[]): readonly Row[] =>
  keepSame(({ id }) => id, before, now);

describe('rows that are read again', () => {
  const before: readonly Row[] = [{ id: 'a', much: 1 }, { id: 'b' }, { id: 'c', note: '' }];
  it('are the same objects where nothing of them changed, in whatever order they come', () => {
    const now = same(before, [
      { id: 'c', note: '' },
      { id: 'a', much: 2 },
      { id: 'b' },
      { id: 'd' },
    ]);
    assert.equal(now[0], before[2]);
    assert.deepEqual(now[1], { id: 'a', much: 2 });
    assert.equal(now[2], before[1]);
    assert.equal(now.length, 4);
  });
  it('are others where a field came or went', () => {
    const now = same(before, [{ id: 'b', note: 'x' }, { id: 'c' }]);
    assert.deepEqual(now, [{ id: 'b', note: 'x' }, { id: 'c' }]);
    // Undefined is not the same as missing.
    assert.notEqual(same([{ id: 'a' }], [{ id: 'a', note: undefined as never }])[0], before[0]);
  });
});

describe('one row that is read again', () => {
  it('is the same object as long as nothing of it changed', () => {
    const row: Row = { id: 'a', much: 1 };
    assert.equal(keepRow(row, { id: 'a', much: 1 }), row);
    assert.deepEqual(keepRow(row, { id: 'a', much: 2 }), { id: 'a', much: 2 });
    assert.equal(keepRow(row, undefined), undefined);
    assert.equal(keepRow(undefined, row), row);
  });
});
