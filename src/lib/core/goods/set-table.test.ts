import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import type { Row } from '../books/tables';
import { readEntry } from '../daybook/read-entry';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { EVENT, idOf, itemId } from '../testing/made-up-business';
import { orderTables, setTable, type TypedTable } from './set-table';

const writer = new DeviceWriter(1);
const row = (n: number, sort: number): Row<'tables'> => ({
  id: idOf(30, n),
  setStamp: 'x',
  name: `Table ${String(n)}`,
  sort,
  goods: [{ item: itemId(n), width: 1 }],
  event: null,
  size: 'middle',
  isActive: true,
});
const tables = [row(1, 0), row(2, 1), row(3, 2)];
const set = (more: Partial<TypedTable>) =>
  setTable(
    writer.newId,
    {
      id: null,
      name: 'Herbs',
      goods: [
        { item: itemId(1), width: 2 },
        { item: itemId(2), width: 1 },
      ],
      event: EVENT,
      size: 'large',
      isActive: true,
      ...more,
    },
    tables,
  );

describe('laying goods out', () => {
  it('a new table stands last; one that is there stays where it is', () => {
    for (const [id, sort] of [
      [null, 3],
      [idOf(30, 1), 0],
    ] as const) {
      const outcome = set({ id });
      assert.ok(outcome.ok);
      assert.equal(outcome.drafts[0]!.body['sort'], sort);
      for (const entry of writer.append(outcome.drafts, 0)) assert.ok(readEntry(entry).ok);
    }
  });
  it('wants a name, and no goods twice', () => {
    const code = (more: Partial<TypedTable>) => {
      const outcome = set(more);
      return outcome.ok ? null : outcome.refusal.code;
    };
    const twice = [1, 2, 1].map((n) => ({ item: itemId(n), width: 1 }));
    assert.deepEqual(
      [code({ name: ' ' }), code({ goods: twice })],
      ['table/no-name', 'table/twice'],
    );
  });
  it('another order writes only the tables that move', () => {
    const drafts = orderTables(writer.newId, [tables[0]!, tables[2]!, tables[1]!]);
    assert.deepEqual(
      drafts.map(({ body }) => [body['name'], body['sort']]),
      [
        ['Table 3', 1],
        ['Table 2', 2],
      ],
    );
  });
});
