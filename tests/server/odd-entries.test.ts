/** Entries that no honest device writes, and one that an honest device may: none of them blocks a device. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import type { Entry } from '../../src/lib/core/daybook/entry';
import { draft } from '../../src/lib/core/daybook/kinds';
import { DeviceWriter } from '../../src/lib/core/testing/arbitrary-daybook';
import {
  BUSINESS,
  deviceId,
  EVENT,
  idOf,
  itemId,
} from '../../src/lib/core/testing/made-up-business';
import { BookReader } from '../../src/lib/server/books/read-books';
import { append } from '../../src/lib/server/daybook/append';
import { select } from '../../src/lib/server/database/select';
import { judgeAllKept } from '../../src/lib/server/daybook/judge-kept';
import { keptEntries } from '../../src/lib/server/daybook/kept';
import { pull } from '../../src/lib/server/daybook/pull';
import { rebuild } from '../../src/lib/server/daybook/rebuild';
import { testDatabase, type TestDatabase } from '../support/test-database';

const now = Date.UTC(2026, 10, 22, 9);
let t: TestDatabase;
let devices = 0;
before(async () => (t = await testDatabase()));
after(async () => await t.end());

async function device(): Promise<{
  writer: DeviceWriter;
  push: (entries: readonly Entry[]) => ReturnType<typeof append>;
  n: number;
}> {
  devices += 1;
  const n = devices;
  await t.enrol(BUSINESS, deviceId(n));
  const ref = { business: BUSINESS, device: deviceId(n) };
  return {
    n,
    writer: new DeviceWriter(n),
    push: async (entries) => await append(t.database, ref, entries, now),
  };
}
const goodsAt = async (place: string, item: string): Promise<number> =>
  (await new BookReader(t.database).rows(BUSINESS, 'stock', { place, item }))[0]?.quantity ?? 0;

describe('an odd entry', () => {
  it('of a movement of 5,000 goods is in the books, to the last of them', async () => {
    const { writer, push } = await device();
    const goods = Array.from({ length: 700 }, (_, at) => ({ item: idOf(66, at % 7), quantity: 1 }));
    const body = { reason: 'loaded', from: 'base', to: EVENT, goods, note: '' } as const;
    const short = draft('stock.moved', writer.newId(), EVENT, body);
    assert.deepEqual((await push(writer.append([short], now))).kept, []);
    // As many as fit into an entry: more than a thousand, so that the last one's number has four figures.
    const many = Array.from({ length: 1010 }, () => ({ item: idOf(67, 1), quantity: 1 }));
    const long = draft('stock.moved', writer.newId(), EVENT, { ...body, goods: many });
    assert.deepEqual((await push(writer.append([long], now))).kept, []);
    assert.equal(await goodsAt(EVENT, idOf(67, 1)), 1010);
  });

  it('with half a character in it is written with a whole one, and is in the books', async () => {
    const { writer, push } = await device();
    const name = 'Ferns \ud83c';
    const category = { id: idOf(71, 1), name, sort: 1, isActive: true };
    const said = await push(
      writer.append([draft('category.set', writer.newId(), null, category)], now),
    );
    assert.deepEqual([said.refused, said.kept], [null, []]);
    const [row] = await new BookReader(t.database).rows(BUSINESS, 'categories', {
      id: idOf(71, 1),
    });
    assert.equal(row?.name, 'Ferns \ufffd');
  });

  const odd: readonly (readonly [string, (body: Record<string, unknown>) => unknown])[] = [
    ['half a character', (body) => ({ ...body, name: 'a\ud800' })],
    ['a number beyond all numbers', (body) => ({ ...body, sort: Infinity })],
    ['a nesting without end', (body) => ({ ...body, name: nested(20_000) })],
  ];
  for (const [what, change] of odd)
    it(`that has ${what} and was never hashed is refused by name, and blocks nobody else`, async () => {
      const { writer, push } = await device();
      const [entry] = writer.append(
        [
          draft('category.set', writer.newId(), null, {
            id: idOf(71, 2),
            name: 'a',
            sort: 1,
            isActive: true,
          }),
        ],
        now,
      );
      const said = await push([{ ...entry!, body: change(entry!.body) as Entry['body'] }]);
      assert.equal(said.refused?.code, 'chain/hash-wrong');
      const other = await device();
      const [load] = other.writer.write({ does: 'load', item: 1, quantity: 1000 }, now);
      assert.deepEqual((await other.push([load!])).kept, []);
    });

  it('that the books fail at is kept, shown and passed over, also when they are worked out again', async () => {
    const { writer, push, n } = await device();
    const load = (item: number): Entry =>
      writer.write({ does: 'load', item, quantity: 1000 }, now)[0]!;
    const [first, bad, last] = [load(3), load(5), load(3)];
    assert.deepEqual((await push([first, bad, last])).kept, []);
    const { sequelize } = t.database;
    // Stands for whatever a later version of the tables no longer takes.
    await sequelize.query('DELETE FROM books_movements WHERE business = ?', {
      replacements: [BUSINESS],
    });
    await sequelize.query(
      `ALTER TABLE books_movements ADD CONSTRAINT IF NOT EXISTS odd CHECK (item <> '${itemId(5)}')`,
    );
    const rebuilt = await rebuild(t.database, BUSINESS);
    assert.equal(rebuilt.kept, 1);
    assert.deepEqual([await goodsAt(EVENT, itemId(3)), await goodsAt(EVENT, itemId(5))], [2000, 0]);
    const { kept } = await keptEntries(t.database, BUSINESS);
    assert.deepEqual(
      kept.map(({ entry, state }) => [entry.id, state]),
      [[bad.id, 'unfit']],
    );
    // A start tries it again, and leaves it where it is as long as it fits no better; said for what it is.
    const row = () =>
      select<{ position: string; state: string; fault: string }>(
        t.database,
        'SELECT position, state, fault FROM daybook_entries WHERE id = ?',
        [bad.id],
      );
    const [before] = await row();
    await sequelize.query("UPDATE daybook_entries SET state = 'unread', fault = '' WHERE id = ?", {
      replacements: [bad.id],
    });
    assert.equal(await judgeAllKept(t.database, now), 0);
    const [after] = await row();
    assert.deepEqual([after?.position, after?.state], [before?.position, 'unfit']);
    assert.match(after?.fault ?? '', /"code":"body\/unfit".*figures are refused/);
    // What another version found against it is not what this one finds.
    await sequelize.query("UPDATE daybook_entries SET fault = 'the one before' WHERE id = ?", {
      replacements: [bad.id],
    });
    assert.equal(await judgeAllKept(t.database, now), 0);
    assert.deepEqual(await row(), [after]);
    // What is handed out to nobody is named, so that no number is missing.
    const seen = await pull(t.database, { business: BUSINESS, device: deviceId(99) }, 0);
    assert.deepEqual(seen.passed, [{ device: deviceId(n), seq: 2 }]);
    await sequelize.query('ALTER TABLE books_movements DROP CONSTRAINT odd');
    assert.equal(await judgeAllKept(t.database, now), 1);
    assert.deepEqual(await goodsAt(EVENT, itemId(5)), 1000);
    assert.deepEqual((await keptEntries(t.database, BUSINESS)).kept, []);
  });
});

/** Arrays in arrays, made without recursion. */
function nested(depth: number): unknown {
  let at: unknown = [];
  for (let level = 0; level < depth; level += 1) at = [at];
  return at;
}
