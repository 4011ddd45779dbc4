import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { fitting, nextOrder, sortedBy, type Column } from './list-view';

interface Good {
  readonly name: string;
  readonly left: number | null;
}
const name: Column<Good> = { key: 'name', head: 'Item', is: 'text', value: (row) => row.name };
const left: Column<Good> = { key: 'left', head: 'Left', is: 'figure', value: (row) => row.left };
const columns = [name, left];
const goods: readonly Good[] = [
  { name: 'Thyme, lemon', left: 3 },
  { name: 'Époisses', left: null },
  { name: 'aster', left: 12 },
  { name: 'Box', left: 3 },
];
const names = (typed: string, column: string, isDown: boolean): readonly string[] =>
  fitting(sortedBy(goods, columns, { column, isDown }), typed).map((row) => row.name);

describe('a long list', () => {
  it('sorts words by letters whatever their case and marks, figures by their value', () => {
    assert.deepEqual(names('', 'name', false), ['aster', 'Box', 'Époisses', 'Thyme, lemon']);
    assert.deepEqual(names('', 'left', true), ['aster', 'Thyme, lemon', 'Box', 'Époisses']);
  });
  it('has rows without a value last, whichever way it is turned', () => {
    assert.equal(names('', 'left', false).at(-1), 'Époisses');
    assert.equal(names('', 'left', true).at(-1), 'Époisses');
  });
  it('finds by every word, without accents, and by texts alone', () => {
    assert.deepEqual(names('epo', 'name', false), ['Époisses']);
    assert.deepEqual(names('LEMON thy', 'name', false), ['Thyme, lemon']);
    assert.deepEqual(names('thy box', 'name', false), []);
    assert.deepEqual(names('12', 'name', false), []);
  });
  it('is as it came where no such column is', () =>
    assert.deepEqual(
      names('', 'price', false),
      goods.map((row) => row.name),
    ));
  it('turns with a second tap, and begins with the usual way', () => {
    const first = nextOrder({ column: 'name', isDown: false }, left);
    assert.deepEqual(first, { column: 'left', isDown: true });
    assert.deepEqual(nextOrder(first, left), { column: 'left', isDown: false });
    assert.deepEqual(nextOrder(first, name), { column: 'name', isDown: false });
  });
  it('loses and doubles no row, and keeps equal ones in their order', () => {
    const row = fc.record({ name: fc.string({ maxLength: 3 }), left: fc.option(fc.integer()) });
    fc.assert(
      fc.property(
        fc.array(row),
        fc.constantFrom('name', 'left'),
        fc.boolean(),
        (rows, column, isDown) => {
          const shown = fitting(sortedBy(rows, columns, { column, isDown }), '');
          assert.deepEqual(new Set(shown), new Set(rows));
          assert.equal(shown.length, rows.length);
          const by = column === 'name' ? name : left;
          const at = new Map(rows.map((each, index) => [each, index]));
          for (const [index, each] of shown.slice(1).entries()) {
            const before = shown[index]!;
            if (by.value(before) === by.value(each)) assert.ok(at.get(before)! < at.get(each)!);
          }
        },
      ),
    );
  });
});
