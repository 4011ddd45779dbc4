import assert from 'node:assert/strict';
import { after, before, beforeEach, describe, it } from 'node:test';
import { setTimeout } from 'node:timers/promises';
import mysql from 'mysql2/promise';
import { hashOf } from '../../src/lib/core/daybook/chain';
import type { Entry } from '../../src/lib/core/daybook/entry';
import { DeviceWriter } from '../../src/lib/core/testing/arbitrary-daybook';
import { BUSINESS, deviceId, EVENT, idOf } from '../../src/lib/core/testing/made-up-business';
import { BookReader } from '../../src/lib/server/books/read-books';
import { append, NotEnrolledError } from '../../src/lib/server/daybook/append';
import { keptEntries } from '../../src/lib/server/daybook/kept';
import { moveCountersOn } from '../../src/lib/server/daybook/move-counters-on';
import { pull } from '../../src/lib/server/daybook/pull';
import { rebuild } from '../../src/lib/server/daybook/rebuild';
import { unreadOrUnfit } from '../../src/lib/server/database/migrations/0044-unread-or-unfit';
import { select } from '../../src/lib/server/database/select';
import { startAll } from '../support/start-all';
import { testDatabase, type TestDatabase } from '../support/test-database';

const now = Date.UTC(2026, 10, 22, 10);
let t: TestDatabase;
let books: BookReader;
let writer: DeviceWriter;
let ref: { business: string; device: string };

before(async () => {
  t = await testDatabase();
  books = new BookReader(t.database);
});
after(() => t.end());
let round = 0;
beforeEach(async () => {
  for (const table of [
    'daybook_entries',
    'daybook_counters',
    'daybook_quotas',
    'access_devices',
    'books_stock',
    'books_sales',
    'books_event_totals',
    'books_events',
    'books_movements',
    'books_moves',
  ]) {
    await t.database.sequelize.query(`DELETE FROM ${table}`);
  }
  writer = new DeviceWriter(1);
  ref = { business: BUSINESS, device: deviceId(1) };
  await t.enrol(BUSINESS, deviceId(1));
  round += 1;
});

const loads = (count: number): Entry[] =>
  Array.from({ length: count }, (_, i) =>
    writer.write({ does: 'load', item: 1, quantity: 1000 }, now + i + round),
  ).flat();
const stored = async (): Promise<number> =>
  (await select<{ n: string }>(t.database, 'SELECT COUNT(*) AS n FROM daybook_entries', [])).map(
    ({ n }) => Number(n),
  )[0]!;
const leftAtEvent = async (): Promise<number> =>
  (await books.rows(BUSINESS, 'stock', { place: EVENT }))[0]?.quantity ?? 0;
const resealed = (entry: Entry, change: Partial<Entry>): Entry => {
  const changed = { ...entry, ...change };
  return { ...changed, hash: hashOf(changed) };
};

describe('appending to the daybook in MariaDB', () => {
  it('takes entries once, however often they are sent', async () => {
    const entries = loads(5);
    for (const part of [entries.slice(0, 3), entries.slice(1), entries]) {
      await append(t.database, ref, part);
    }
    assert.deepEqual([await stored(), await leftAtEvent()], [5, 5000]);
  });

  it('takes them once when they are sent twice at the same moment', async () => {
    const entries = loads(20);
    const answers = await Promise.all(
      [entries, entries, entries].map((each) => append(t.database, ref, each)),
    );
    assert.deepEqual(new Set(answers.map(({ have }) => have)), new Set([20]));
    assert.deepEqual([await stored(), await leftAtEvent()], [20, 20_000]);
  });

  const faults: {
    about: string;
    push: (entries: Entry[]) => Entry[];
    code: string;
    have: number;
  }[] = [
    { about: 'a gap', push: ([a, , c]) => [a!, c!], code: 'chain/gap', have: 1 },
    {
      about: 'a broken chain',
      push: ([a, b, c]) => [a!, b!, resealed(c!, { prev: a!.hash })],
      code: 'chain/broken',
      have: 2,
    },
    {
      about: 'a figure changed on the way',
      push: ([a, b]) => [a!, { ...b!, body: { ...b!.body, note: 'x' } }],
      code: 'chain/hash-wrong',
      have: 1,
    },
    {
      about: 'an entry of a foreign business',
      push: ([a, b]) => [a!, resealed(b!, { business: idOf(1, 2) })],
      code: 'entry/other-business',
      have: 1,
    },
    {
      about: 'an entry of another device',
      push: ([a]) => [resealed(a!, { device: deviceId(2) })],
      code: 'entry/other-device',
      have: 0,
    },
    {
      about: 'the same id for something else',
      push: ([a, b]) => [a!, resealed(b!, { id: a!.id })],
      code: 'entry/id-taken',
      have: 1,
    },
  ];
  for (const { about, push, code, have } of faults) {
    it(`refuses ${about}, says so, and keeps what came before it`, async () => {
      const answer = await append(t.database, ref, push(loads(3)));
      assert.deepEqual([answer.refused?.code, answer.have, await stored()], [code, have, have]);
      assert.match(
        answer.refused?.message ?? '',
        /was not taken\. .+\. Nothing that was sent before is lost\./,
      );
      assert.equal(await leftAtEvent(), have * 1000);
    });
  }

  it('takes a push of many at once as it takes them one by one', async () => {
    const entries = loads(150);
    const answer = await append(t.database, ref, entries);
    assert.deepEqual([answer.have, await stored(), await leftAtEvent()], [150, 150, 150_000]);
    const rows = await select<{ position: string; seq: number }>(
      t.database,
      'SELECT position, seq FROM daybook_entries ORDER BY position',
      [],
    );
    assert.deepEqual(
      rows.map(({ position, seq }) => [Number(position), seq]),
      entries.map(({ seq }, at) => [at + 1, seq]),
    );
  });

  it('counts and keeps nothing of what follows a figure changed on the way', async () => {
    const entries = loads(90);
    // Far ahead of the others, and never accepted: the clock of the business does not go by it.
    const ahead = { ...entries[70]!, body: { ...entries[70]!.body, note: 'x' } };
    const arrival = now + 1000;
    const push = [...entries.slice(0, 70), ahead, ...entries.slice(71)];
    const answer = await append(t.database, ref, push, arrival);
    assert.deepEqual(
      [answer.refused?.code, answer.refused?.seq, answer.have, await stored()],
      ['chain/hash-wrong', 71, 70, 70],
    );
    assert.equal(await leftAtEvent(), 70_000);
    const [counted] = await select<{ entries: number }>(
      t.database,
      'SELECT entries FROM daybook_quotas WHERE device = ?',
      [ref.device],
    );
    assert.equal(Number(counted?.entries), 70);
    const [counter] = await select<{ position: string; clock: string }>(
      t.database,
      'SELECT position, clock FROM daybook_counters',
      [],
    );
    assert.equal(Number(counter?.position), 70);
    assert.equal(counter?.clock.slice(0, 17), entries[69]!.stamp.slice(0, 17));
    const rest = await append(t.database, ref, entries.slice(70), arrival);
    assert.deepEqual([rest.refused, rest.have, await leftAtEvent()], [null, 90, 90_000]);
  });

  it('takes a push once that the database undid in the middle, with nothing left of the first try', async () => {
    const entries = loads(150);
    const other = await mysql.createConnection(t.url);
    const isLocked = async (): Promise<boolean> => {
      try {
        await t.database.transaction(async (transaction) => {
          const one = 'SELECT position FROM daybook_counters WHERE business = ? FOR UPDATE NOWAIT';
          await select(t.database, one, [BUSINESS], transaction);
        });
        return false;
      } catch {
        return true;
      }
    };
    try {
      await append(t.database, ref, entries.slice(0, 1));
      await other.beginTransaction();
      // What has changed more is not the one that is undone.
      await other.query(
        "INSERT INTO find_names (business, called) SELECT ?, CONCAT('thing ', seq) FROM seq_1_to_3000",
        [BUSINESS],
      );
      await other.query(
        'INSERT INTO daybook_entries (business, position, id, device, seq, kind, stamp, hash, state, fault, held, entry) ' +
          "VALUES (?, 120, ?, ?, 1, 'x', 'x', 'x', 'applied', '', '', '{}')",
        [BUSINESS, idOf(9, 120), deviceId(9)],
      );
      const pushed = append(t.database, ref, entries);
      while (!(await isLocked())) await setTimeout(1);
      // Each waits for the other.
      await other.query('SELECT position FROM daybook_counters WHERE business = ? FOR UPDATE', [
        BUSINESS,
      ]);
      await other.rollback();
      const answer = await pushed;
      assert.deepEqual([answer.have, answer.kept, answer.refused], [150, [], null]);
    } finally {
      other.destroy();
    }
    assert.deepEqual([await stored(), await leftAtEvent()], [150, 150_000]);
    assert.equal((await books.rows(BUSINESS, 'movements')).length, 150);
  });

  it('refuses a second device that goes by the same name', async () => {
    await append(t.database, ref, loads(2));
    const copy = new DeviceWriter(1);
    const forked = copy.write({ does: 'load', item: 2, quantity: 7000 }, now);
    const answer = await append(t.database, ref, forked);
    assert.deepEqual([answer.refused?.code, answer.have, await stored()], ['chain/forked', 2, 2]);
  });

  it('refuses a device that nobody enrolled', async () => {
    const stranger = { business: BUSINESS, device: deviceId(7) };
    await assert.rejects(append(t.database, stranger, loads(1)), NotEnrolledError);
    assert.equal(await stored(), 0);
  });

  it('keeps a kind from the future, marked, and takes what comes after it', async () => {
    const [a, b, c] = loads(3);
    const future = resealed(b!, { kind: 'stock.beamed', body: { any: ['thing'] } });
    const last = resealed(c!, { prev: future.hash });
    const answer = await append(t.database, ref, [a!, future, last]);
    assert.deepEqual([answer.have, answer.refused], [3, null]);
    assert.deepEqual(
      answer.kept.map(({ id, code }) => [id, code]),
      [[b!.id, 'kind/unknown']],
    );
    assert.deepEqual([await stored(), await leftAtEvent()], [3, 2000]);
    const { kept } = await keptEntries(t.database, BUSINESS);
    assert.deepEqual(
      kept.map(({ entry }) => [entry.kind, entry.seq]),
      [['stock.beamed', 2]],
    );
    assert.match(kept[0]?.message ?? '', /not a kind of entry that this version knows/);
  });

  it('keeps an entry whose body is wrong, and says where', async () => {
    const [a] = loads(1);
    const wrong = resealed(a!, { body: { ...a!.body, goods: [{ item: 'pot', quantity: -1 }] } });
    const answer = await append(t.database, ref, [wrong]);
    assert.match(answer.kept[0]?.message ?? '', /stock\.moved: goods\.0\.item: /);
    assert.deepEqual([await stored(), await leftAtEvent()], [1, 0]);
  });

  it('keeps an entry whose sums no column can hold, and applies the others', async () => {
    await t.database.sequelize.query(
      'INSERT INTO books_stock (business, place, item, quantity) VALUES (?, ?, ?, 9223372036854775807)',
      { replacements: [BUSINESS, EVENT, '00000000-0000-7000-8000-000600000002'] },
    );
    const entries = [1, 2, 1].flatMap((item, i) =>
      writer.write({ does: 'load', item, quantity: 1000 }, now + i),
    );
    const answer = await append(t.database, ref, entries);
    assert.deepEqual([answer.have, answer.kept.map(({ code }) => code)], [3, ['body/unfit']]);
    const [first] = await books.rows(BUSINESS, 'stock', {
      place: EVENT,
      item: '00000000-0000-7000-8000-000600000001',
    });
    assert.equal(first?.quantity, 2000);
  });
});

describe('positions', () => {
  it('leave no gap that a reader could miss while several devices write at once', async () => {
    const others = [2, 3, 4, 5];
    for (const n of others) await t.enrol(BUSINESS, deviceId(n));
    await t.enrol(BUSINESS, deviceId(9));
    const reader = { business: BUSINESS, device: deviceId(9) };
    const seen: string[] = [];
    let at = 0;
    let isWriting = true;
    const reading = (async () => {
      for (let last = false; ; last = !isWriting) {
        const { entries, position } = await pull(t.database, reader, at);
        seen.push(...entries);
        at = position;
        if (last) return;
      }
    })();
    await Promise.all(
      others.map(async (n) => {
        const device = new DeviceWriter(n);
        for (let batch = 0; batch < 12; batch += 1) {
          const entries = [1, 2, 3, 4].flatMap((q) =>
            device.write({ does: 'load', item: q, quantity: 1000 }, now),
          );
          await append(t.database, { business: BUSINESS, device: deviceId(n) }, entries);
        }
      }),
    );
    isWriting = false;
    await reading;
    const ids = seen.map((text) => (JSON.parse(text) as Entry).id);
    assert.deepEqual([ids.length, new Set(ids).size], [others.length * 48, others.length * 48]);
  });

  it('go on beyond anything a reader may have seen after an unclean end', async () => {
    await append(t.database, ref, loads(2));
    await moveCountersOn(t.database);
    await append(t.database, ref, loads(1));
    const reader = { business: BUSINESS, device: deviceId(8) };
    const { entries, position } = await pull(t.database, reader, 2);
    assert.deepEqual([entries.length, position], [1, 1003]);
  });

  it('do not give a device its own entries back, but say how many the server has', async () => {
    await append(t.database, ref, loads(3));
    const { entries, position, latest, have, isSetBack } = await pull(t.database, ref, 0);
    assert.deepEqual(
      { entries, position, latest, have, isSetBack },
      { entries: [], position: 3, latest: 3, have: 3, isSetBack: false },
    );
  });
});

describe('the books in MariaDB', () => {
  it('can be thrown away and worked out again', async () => {
    const sale = writer.append(writer.sale([[1, 2]], 0, now), now);
    await append(t.database, ref, [...sale, ...loads(2)]);
    // In whatever order they are found.
    const rows = async (): Promise<string[]> =>
      Object.entries(await books.all(BUSINESS))
        .flatMap(([table, all]) => all.map((row) => `${table} ${JSON.stringify(row)}`))
        .sort();
    const was = await rows();
    await t.database.sequelize.query('DELETE FROM books_stock');
    await t.database.sequelize.query('UPDATE books_event_totals SET takings = 1');
    assert.deepEqual(await rebuild(t.database, BUSINESS), { entries: 4, kept: 0 });
    assert.deepEqual(await rows(), was);
  });

  it('apply what had to be kept once a version knows it', async () => {
    const [a] = loads(1);
    await append(t.database, ref, [a!]);
    await t.database.sequelize.query("UPDATE daybook_entries SET state = 'unread', fault = 'x'");
    await t.database.sequelize.query('DELETE FROM books_stock');
    await rebuild(t.database, BUSINESS);
    const { kept } = await keptEntries(t.database, BUSINESS);
    assert.deepEqual([await leftAtEvent(), kept], [1000, []]);
  });

  it('tell what cannot be read from what does not fit, also where an older version kept both as one', async () => {
    const entries = loads(3);
    await append(t.database, ref, entries);
    const unfit = JSON.stringify({ id: entries[1]!.id, state: 'kept', code: 'body/unfit' });
    const { sequelize } = t.database;
    await sequelize.query("UPDATE daybook_entries SET state = 'kept', fault = '' WHERE seq < 3");
    await sequelize.query('UPDATE daybook_entries SET fault = ? WHERE seq = 2', {
      replacements: [unfit],
    });
    for (const statement of unreadOrUnfit.statements) await sequelize.query(statement);
    assert.deepEqual(
      await select(t.database, 'SELECT state FROM daybook_entries ORDER BY position', []),
      [{ state: 'unread' }, { state: 'unfit' }, { state: 'applied' }],
    );
  });

  it('are those of one business alone', async () => {
    const other = idOf(1, 2);
    await append(t.database, ref, loads(1));
    assert.deepEqual(await books.rows(other, 'stock'), []);
    await t.enrol(other, deviceId(6));
    const answer = await pull(t.database, { business: other, device: deviceId(6) }, 0);
    assert.deepEqual(answer.entries, []);
    const { rows } = await startAll(t.database, other, now);
    assert.deepEqual(Object.values(rows).flat(), []);
  });

  it('let a new device start from the rows as they are, without documents of long ago', async () => {
    const event = writer.write({ does: 'event', name: 'Green' }, now);
    const sale = writer.append(writer.sale([[1, 2]], 0, now), now);
    await append(t.database, ref, [...event, ...sale]);
    const fresh = await startAll(t.database, BUSINESS, now + 86_400_000);
    assert.deepEqual(
      [fresh.position, fresh.received[deviceId(1)], fresh.rows['sales']?.length],
      [3, 3, 1],
    );
    const later = await startAll(t.database, BUSINESS, now + 60 * 86_400_000);
    assert.deepEqual([later.rows['sales'], later.rows['eventTotals']?.length], [undefined, 1]);
  });
});
