import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { IDBFactory, IDBKeyRange } from 'fake-indexeddb';
import { Books } from '../core/books/books';
import { changesOf } from '../core/books/changes';
import { eraseCustomer } from '../core/customer/set-customer';
import { deviceTables, isOnDevice } from '../core/books/tables';
import { chainFault, EMPTY_CHAIN, headAfter } from '../core/daybook/chain';
import type { Entry } from '../core/daybook/entry';
import { draft } from '../core/daybook/kinds';
import { readEntry } from '../core/daybook/read-entry';
import { emptySlip, putItem } from '../core/slip/open-slip';
import { arbitraryDaybook, DeviceWriter } from '../core/testing/arbitrary-daybook';
import {
  BUSINESS,
  customerDraft,
  customerId,
  deviceId,
  EVENT,
  idOf,
  item,
  itemId,
} from '../core/testing/made-up-business';
import { DeviceDatabase } from './database';
import { DeviceDaybook, ownEntriesAfter, UnfitDraftError } from './daybook';
import { applyKept, MissingEntryError, receive } from './receive';

const now = Date.UTC(2026, 10, 22, 9);
let names = 0;

async function device(number = 1): Promise<{ db: DeviceDatabase; daybook: DeviceDaybook }> {
  const db = new DeviceDatabase(`device-${(names += 1)}`, {
    indexedDB: new IDBFactory(),
    IDBKeyRange,
  });
  await db.write('identity', { business: BUSINESS, device: deviceId(number), number, token: 'x' });
  return { db, daybook: new DeviceDaybook(db, { now: () => now }) };
}

const stage = (id: number) =>
  draft('event.stage', idOf(7, id), EVENT, { event: EVENT, stage: 'trading' });
const sold = (writer: DeviceWriter) => ({
  ok: true as const,
  drafts: writer.sale([[1, 2]], 0, now),
});

async function rowsOf(db: DeviceDatabase): Promise<Record<string, unknown>> {
  const all: Record<string, unknown> = {};
  for (const table of deviceTables) {
    const rows = await db.table(table).toArray();
    if (rows.length > 0) all[table] = rows;
  }
  return all;
}

function booksOf(entries: readonly Entry[]): Record<string, unknown> {
  const books = new Books();
  for (const entry of entries) {
    const read = readEntry(entry);
    if (read.ok) books.apply(changesOf(read.entry).filter(({ table }) => isOnDevice(table)));
  }
  return books.toJSON();
}

const sortRows = (all: Record<string, unknown>): Record<string, string[]> =>
  Object.fromEntries(
    Object.entries(all).map(([table, rows]) => [
      table,
      (rows as object[])
        .map((row) => JSON.stringify(Object.entries(row).sort(([a], [b]) => (a < b ? -1 : 1))))
        .sort(),
    ]),
  );

describe('the device’s daybook', () => {
  it('numbers entries and sales without a gap, also when several are asked for at once', async () => {
    const { db, daybook } = await device();
    const writer = new DeviceWriter(1);
    await Promise.all(Array.from({ length: 12 }, () => daybook.append(() => sold(writer))));
    const entries = await ownEntriesAfter(db, 0, 1000);
    let head = EMPTY_CHAIN;
    for (const entry of entries) {
      assert.equal(chainFault(entry, head), null);
      head = headAfter(entry);
    }
    assert.deepEqual([entries.length, (await db.read('head'))?.sales], [24, 12]);
  });

  it('writes nothing at all when a command is refused', async () => {
    const { db, daybook } = await device();
    const refused = { ok: false as const, refusal: { code: 'no' } };
    assert.deepEqual(await daybook.append(() => refused), refused);
    assert.deepEqual([await db.entries.count(), await db.read('head')], [0, undefined]);
  });

  it('writes nothing at all when a body is not fit, and goes on afterwards', async () => {
    const { db, daybook } = await device();
    const unfit = draft('event.stage', idOf(7, 1), EVENT, { event: EVENT, stage: 'gone' as never });
    await assert.rejects(
      daybook.append(() => ({ ok: true as const, drafts: [stage(2), unfit] })),
      UnfitDraftError,
    );
    assert.equal(await db.entries.count(), 0);
    await daybook.append(() => ({ ok: true as const, drafts: [stage(3)] }));
    assert.equal((await db.read('head'))?.seq, 1);
  });

  it('rings a slip up once, however often it is asked to', async () => {
    const { db, daybook } = await device();
    const slip = putItem(emptySlip(idOf(9, 1)), item(1, 450), 1000, 'a');
    assert.ok(slip.ok);
    await db.write('slip', { ...slip.slip, revision: 1 });
    const writer = new DeviceWriter(1);
    const outcomes = await Promise.all(
      [1, 2, 3].map(() => daybook.append(() => sold(writer), { settles: slip.slip.id })),
    );
    assert.deepEqual(
      outcomes.map((outcome) => (outcome.ok ? 'rung' : outcome.refusal)),
      ['rung', { code: 'slip/gone' }, { code: 'slip/gone' }],
    );
    await daybook.settle();
    assert.equal(await db.books.sales.count(), 1);
    assert.equal(await db.read('slip'), undefined);
  });

  it('is one chain when two windows write in turn, and sees what the other one changed', async () => {
    const { db, daybook } = await device();
    const other = new DeviceDaybook(db, daybook.surroundings);
    const writer = new DeviceWriter(1);
    const numbers: number[] = [];
    const sell = (window: DeviceDaybook) =>
      window.append(({ saleNumber }) => {
        numbers[saleNumber] = (numbers[saleNumber] ?? 0) + 1;
        return sold(writer);
      });
    for (const window of [daybook, daybook, other, daybook, other, other]) await sell(window);
    const by = idOf(9, 1);
    await db.write('choices', { by, drawers: {} });
    await Promise.all([sell(other), sell(daybook)]);
    const entries = await ownEntriesAfter(db, 0, 1000);
    let head = EMPTY_CHAIN;
    for (const entry of entries) {
      assert.equal(chainFault(entry, head), null);
      head = headAfter(entry);
    }
    assert.equal(entries.length, 16);
    assert.deepEqual(Object.keys(numbers), ['1', '2', '3', '4', '5', '6', '7', '8']);
    assert.deepEqual([...new Set(entries.slice(12).map((entry) => entry.by))], [by]);
    assert.equal(entries[11]!.by, null);
  });

  it('tries once more when room could be made, and says why it could not otherwise', async () => {
    const { db } = await device();
    await db.open();
    const backend = db.backendDB.bind(db);
    let refusals = 0;
    db.backendDB = () => {
      if (refusals === 0) return backend();
      refusals -= 1;
      throw new DOMException('', 'QuotaExceededError');
    };
    const asked: string[] = [];
    const daybook = (isRoom: boolean): DeviceDaybook =>
      new DeviceDaybook(db, {
        now: () => now,
        makeRoom: () => {
          asked.push('room');
          return Promise.resolve(isRoom);
        },
      });
    refusals = 1;
    const drafts = [stage(1)];
    assert.equal((await daybook(true).append(() => ({ ok: true, drafts }))).ok, true);
    refusals = 1;
    await assert.rejects(
      daybook(false).append(() => ({ ok: true, drafts: [stage(2)] })),
      { name: 'QuotaExceededError' },
    );
    assert.deepEqual(asked, ['room', 'room']);
    assert.equal((await ownEntriesAfter(db, 0, 10)).length, 1);
  });

  it('lets the rows follow once, whoever does it and however often', async () => {
    const { db, daybook } = await device();
    const writer = new DeviceWriter(1);
    for (let n = 0; n < 5; n += 1) await daybook.append(() => sold(writer));
    const other = new DeviceDaybook(db, daybook.surroundings);
    await Promise.all([daybook.settle(), other.settle(), daybook.settle(), other.settle()]);
    const entries = await ownEntriesAfter(db, 0, 1000);
    assert.deepEqual([entries.length, await db.read('applied')], [10, 10]);
    assert.deepEqual(sortRows(await rowsOf(db)), sortRows(booksOf(entries)));
  });

  it('applies at the next start what a window that died had only written', async () => {
    const { db, daybook } = await device();
    const writer = new DeviceWriter(1);
    await daybook.append(() => sold(writer));
    await daybook.settle();
    const rows = await rowsOf(db);
    // As if the rows of the last sale had never been written.
    await db.write('applied', 0);
    for (const table of deviceTables) await db.table(table).clear();
    await new DeviceDaybook(db, daybook.surroundings).settle();
    assert.deepEqual(await rowsOf(db), rows);
  });

  it('stamps later than what it has received', async () => {
    const { db, daybook } = await device();
    const ahead = new DeviceWriter(2).write({ does: 'stage', stage: 'packed' }, now + 60_000);
    await receive(db, deviceId(1), { entries: ahead, position: 1 });
    await daybook.append(() => ({ ok: true as const, drafts: [stage(1)] }));
    const [own] = await ownEntriesAfter(db, 0, 1);
    assert.ok(own !== undefined && own.stamp > ahead[0]!.stamp);
  });
});

describe('receiving what others wrote', () => {
  it('gives the books of all the entries, however they come and come again', async () => {
    await fc.assert(
      fc.asyncProperty(
        arbitraryDaybook,
        fc.array(fc.nat({ max: 30 }), { maxLength: 6 }),
        async (entries, again) => {
          const { db } = await device(9);
          let position = 0;
          for (const size of [...again, entries.length]) {
            const from = Math.max(0, Math.min(position, entries.length) - (size % 3));
            const part = entries.slice(from, from + size);
            if (from + size < position) continue;
            await receive(db, deviceId(9), { entries: part, position: from + size });
            position = Math.max(position, from + size);
          }
          assert.deepEqual(sortRows(await rowsOf(db)), sortRows(booksOf(entries)));
        },
      ),
      { numRuns: 25 },
    );
  });

  it('passes its own entries over when they come back', async () => {
    const { db } = await device(1);
    const own = new DeviceWriter(1).write({ does: 'load', item: 1, quantity: 5000 }, now);
    assert.equal(await receive(db, deviceId(1), { entries: own, position: 1 }), 0);
    assert.equal(await db.books.stock.count(), 0);
  });

  it('keeps a kind from the future, shows it, and applies it when it is known', async () => {
    const { db } = await device(1);
    const [load] = new DeviceWriter(2).write({ does: 'load', item: 1, quantity: 5000 }, now);
    const future: Entry = { ...load!, kind: 'stock.beamed' };
    await receive(db, deviceId(1), { entries: [future], position: 1 });
    const [kept] = await db.kept.toArray();
    assert.deepEqual(
      [kept?.code, kept?.where, await db.books.stock.count()],
      ['kind/unknown', 'here', 0],
    );
    assert.equal(await applyKept(db), 0);
    // A newer version of the application knows the kind: for this one, it is the old name again.
    await db.kept.put({ ...kept!, entry: load! });
    assert.equal(await applyKept(db), 1);
    assert.deepEqual([await db.kept.count(), await db.books.stock.count()], [0, 2]);
  });
});

describe('two windows that take in at once', () => {
  it('apply what both heard of once', async () => {
    const { db } = await device(1);
    const load = new DeviceWriter(2).write({ does: 'load', item: 1, quantity: 5000 }, now);
    const arrival = { entries: load, position: load.length };
    const taken = await Promise.all([
      receive(db, deviceId(1), arrival),
      receive(db, deviceId(1), arrival),
    ]);
    assert.deepEqual(taken.sort(), [0, load.length]);
    assert.equal((await db.books.stock.get([EVENT, itemId(1)]))?.quantity, 5000);
  });

  it('apply what an older version kept once', async () => {
    const { db } = await device(1);
    const [load] = new DeviceWriter(2).write({ does: 'load', item: 1, quantity: 5000 }, now);
    const future: Entry = { ...load!, kind: 'stock.beamed' };
    await receive(db, deviceId(1), { entries: [future], position: 1 });
    await db.kept.put({ ...(await db.kept.toArray())[0]!, entry: load! });
    assert.deepEqual((await Promise.all([applyKept(db), applyKept(db)])).sort(), [0, 1]);
    assert.equal((await db.books.stock.get([EVENT, itemId(1)]))?.quantity, 5000);
  });
});

describe('numbers of another device', () => {
  const three = (): readonly Entry[] => {
    const writer = new DeviceWriter(2);
    return [1, 2, 3].flatMap((quantity) =>
      writer.write({ does: 'load', item: 1, quantity: quantity * 1000 }, now),
    );
  };

  it('are all there: with one missing nothing is taken in', async () => {
    const { db } = await device(1);
    const [first, , third] = three();
    await assert.rejects(
      receive(db, deviceId(1), { entries: [first!, third!], position: 3 }),
      MissingEntryError,
    );
    assert.deepEqual([await db.books.stock.count(), await db.received.count()], [0, 0]);
    // What the server itself does not have is not waited for longer than that.
    await receive(db, deviceId(1), { entries: [first!, third!], position: 3 }, false);
    assert.equal((await db.books.stock.get([EVENT, itemId(1)]))?.quantity, 4000);
  });

  it('may be passed over where the server says so', async () => {
    const { db } = await device(1);
    const [first, , third] = three();
    const passed = [{ device: deviceId(2), seq: 2 }];
    await receive(db, deviceId(1), { entries: [first!, third!], position: 3, passed });
    assert.equal((await db.read('standing'))?.received[deviceId(2)], 3);
    await receive(db, deviceId(1), {
      entries: [],
      position: 4,
      passed: [{ device: deviceId(2), seq: 4 }],
    });
    assert.equal((await db.read('standing'))?.received[deviceId(2)], 4);
  });
});

describe('a customer who is erased', () => {
  const personal = async (db: DeviceDatabase): Promise<string[]> => {
    const places: string[] = [];
    for (const table of db.tables)
      if (JSON.stringify(await table.toArray()).includes('Wren')) places.push(table.name);
    return places;
  };
  const noted = (writer: DeviceWriter) => customerDraft(1, 'Wren', writer.newId);

  it('is gone from every table of the device that does so, and its chain still holds', async () => {
    const { db, daybook } = await device();
    const writer = new DeviceWriter(9);
    await daybook.append(() => ({ ok: true, drafts: [noted(writer)] }));
    await daybook.settle();
    assert.deepEqual((await personal(db)).sort(), ['customers', 'entries']);
    await daybook.append(() => eraseCustomer(writer.newId, [customerId(1)]));
    await daybook.settle();
    assert.deepEqual(await personal(db), []);
    const entries = await ownEntriesAfter(db, 0, 100);
    assert.equal(entries.length, 2);
    let head = EMPTY_CHAIN;
    for (const entry of entries) {
      assert.equal(chainFault(entry, head), null);
      head = headAfter(entry);
    }
  });

  it('is gone from what a device had received before it says so itself', async () => {
    const { db, daybook } = await device(1);
    const other = new DeviceWriter(2);
    const loads = [1, 2, 3].flatMap((quantity) =>
      other.write({ does: 'load', item: 1, quantity: quantity * 1000 }, now),
    );
    await receive(db, deviceId(1), { entries: loads, position: 3 });
    const written = other.append([noted(other), stage(3)], now);
    await receive(db, deviceId(1), { entries: written, position: 5 });
    assert.deepEqual((await personal(db)).sort(), ['customers', 'received']);
    const { drafts } = eraseCustomer(other.newId, [customerId(1)]);
    await daybook.append(() => ({ ok: true, drafts }));
    await daybook.settle();
    assert.deepEqual(await personal(db), []);
  });

  it('is gone from a device that hears of it, whoever had written it down', async () => {
    const { db, daybook } = await device(1);
    const other = new DeviceWriter(2);
    const [first, second] = other.append(
      [noted(other), ...eraseCustomer(other.newId, [customerId(1)]).drafts],
      now,
    );
    await daybook.append(() => ({ ok: true, drafts: [noted(new DeviceWriter(9))] }));
    await daybook.settle();
    await receive(db, deviceId(1), { entries: [first!], position: 1 });
    await daybook.append(() => ({ ok: true, drafts: [stage(1)] }));
    await daybook.append(() => ({ ok: true, drafts: [stage(2)] }));
    assert.deepEqual((await personal(db)).sort(), ['customers', 'entries', 'received']);
    let rewritten = 0;
    for (const table of [db.entries, db.received])
      table.hook('updating', () => {
        rewritten += 1;
      });
    await receive(db, deviceId(1), { entries: [second!], position: 2 });
    assert.deepEqual(await personal(db), []);
    // One block of its own, and one of what it had received; the others stay as they are.
    assert.equal(rewritten, 2);
    // By this the mirror beside the database knows that it must be made anew.
    assert.equal(await db.read('erasures'), 1);
  });
});
