/** What a device does with what the server says: stamps that are held, entries that are barred, what is past. */
import assert from 'node:assert/strict';
import { beforeEach, describe, it } from 'node:test';
import { IDBFactory, IDBKeyRange } from 'fake-indexeddb';
import { deviceTables } from '../core/books/tables';
import type { Draft } from '../core/daybook/chain';
import { clockOf, stampOf } from '../core/daybook/clock';
import type { Entry } from '../core/daybook/entry';
import { draft, privateDraft } from '../core/daybook/kinds';
import { DeviceWriter } from '../core/testing/arbitrary-daybook';
import {
  BUSINESS,
  customerDraft,
  customerId,
  deviceId,
  EVENT,
  eventBody,
  idOf,
  itemId,
} from '../core/testing/made-up-business';
import { eraseCustomer } from '../core/customer/set-customer';
import { goods } from '../core/testing/founded';
import { DeviceDatabase, type KeptRow } from './database';
import { DeviceDaybook, ownEntriesAfter } from './daybook';
import { comeBack, forgetAll } from './forget';
import { prune } from './prune';
import { putRight } from './put-right';
import { NO_STANDING, receive } from './receive';
import { restamp } from './restamp';
import { PortionSize } from './sync/portion';
import type { Transport } from './sync/transport';

const NOW = Date.UTC(2026, 10, 22, 9);
const DAY = 86_400_000;
let db: DeviceDatabase;
let clock: number;
let daybook: DeviceDaybook;
const writer = new DeviceWriter(9);
let other: DeviceWriter;

beforeEach(async () => {
  db = new DeviceDatabase('test', { indexedDB: new IDBFactory(), IDBKeyRange });
  await db.write('identity', { business: BUSINESS, device: deviceId(1), number: 1, token: 'x' });
  await db.write('standing', NO_STANDING);
  other = new DeviceWriter(2);
  clock = NOW;
  daybook = new DeviceDaybook(db, { now: () => clock });
});

async function say(drafts: readonly Draft[]): Promise<readonly Entry[]> {
  const before = (await db.read('head'))?.seq ?? 0;
  await daybook.append(() => ({ ok: true, drafts }));
  await daybook.settle();
  return await ownEntriesAfter(db, before, 1000);
}
const price = async (): Promise<number | undefined> => (await db.books.items.get(itemId(1)))?.price;
const heard = (drafts: readonly Draft[], at: number, position: number): Promise<number> =>
  receive(db, deviceId(1), { entries: other.append(drafts, at), position });

describe('a stamp that the server held', () => {
  it('is the row’s as well: what others say later wins here too', async () => {
    clock = NOW + 70 * 365 * DAY;
    const entries = await say([goods(writer, 1, 777)]);
    assert.equal(await price(), 777);
    const stamp = stampOf({ millis: NOW, counter: 0 }, deviceId(1));
    await db.transaction('rw', db.tables, () =>
      restamp(db, entries, [{ id: entries[0]!.id, stamp }]),
    );
    const [own] = await ownEntriesAfter(db, 0, 10);
    assert.equal(own?.held, stamp);
    await heard([goods(other, 1, 105)], NOW + 60_000, 1);
    assert.equal(await price(), 105);
  });

  it('of another device is followed, and what is changed here next is later than it', async () => {
    clock = NOW - 3_600_000;
    const [theirs] = other.append([goods(other, 1, 300)], NOW);
    await receive(db, deviceId(1), { entries: [theirs!], position: 1 });
    const [mine] = await say([goods(writer, 1, 310)]);
    assert.ok(mine!.stamp > theirs!.stamp, 'though the clock here is an hour behind');
    assert.equal(await price(), 310);
    const held = stampOf({ millis: NOW + 5, counter: 0 }, deviceId(2));
    const [ahead] = other.append([goods(other, 1, 900)], NOW + 70 * 365 * DAY);
    await receive(db, deviceId(1), { entries: [{ ...ahead!, held }], position: 2 });
    assert.equal(await price(), 900);
    const [next] = await say([goods(writer, 1, 320)]);
    assert.ok(clockOf(next!.stamp).millis < NOW + DAY);
    assert.equal(await price(), 320);
  });
});

describe('an entry that comes late', () => {
  it('is taken in once, though ones that followed it are here already', async () => {
    const [first, second] = other.append([goods(other, 1, 100), goods(other, 2, 200)], NOW);
    const passed = [{ device: deviceId(2), seq: 1 }];
    await receive(db, deviceId(1), { entries: [second!], position: 2, passed });
    const late = { entries: [{ ...first!, late: true } as Entry], position: 3 };
    assert.deepEqual(
      [await receive(db, deviceId(1), late), await receive(db, deviceId(1), late)],
      [1, 0],
    );
    assert.equal(await price(), 100);
  });
});

describe('what was barred', () => {
  /** What the server has, by table and id. */
  const server = (rows: Readonly<Record<string, object>>): Transport =>
    ({
      ask: (_path: string, _schema: unknown, body: { wanted: { table: string; id: string }[] }) =>
        Promise.resolve({
          came: 'answer',
          answer: {
            records: body.wanted.map(({ table, id }) => ({
              table,
              id,
              row: rows[`${table} ${id}`] ?? null,
            })),
          },
        }),
    }) as unknown as Transport;
  const barred = async (entry: Entry): Promise<void> => {
    const { id, stamp } = entry;
    const row: KeptRow = {
      id,
      where: 'server',
      state: 'barred',
      code: 'x',
      message: '',
      stamp,
      entry: null,
    };
    await db.kept.put(row);
  };

  it('is undone here as well: what stood before is shown, and its act is gone', async () => {
    await heard([goods(other, 1, 450)], NOW, 1);
    const stood = await db.books.items.get(itemId(1));
    clock = NOW + 1000;
    const [entry] = await say([goods(writer, 1, 1)]);
    await barred(entry!);
    assert.equal(await putRight(db, server({ [`items ${itemId(1)}`]: stood! })), true);
    assert.deepEqual(await db.books.items.get(itemId(1)), stood);
    assert.deepEqual(
      (await db.books.acts.toArray()).map(({ device }) => device),
      [deviceId(2)],
    );
    // Once: what is set afterwards stays.
    await say([goods(writer, 1, 2)]);
    await putRight(db, server({}));
    assert.equal(await price(), 2);
  });

  it('that was never there before is gone, and what was written since and is not sent stands', async () => {
    const [entry] = await say([goods(writer, 1, 1)]);
    await barred(entry!);
    await db.write('standing', { ...NO_STANDING, sent: 1 });
    await say([goods(writer, 1, 500)]);
    await putRight(db, server({}));
    assert.equal(await price(), 500);
  });

  it('brings back a customer whom somebody had no right to forget', async () => {
    await heard([customerDraft(1, 'Wren', other.newId)], NOW, 1);
    const stood = await db.books.customers.get(customerId(1));
    const [entry] = await say(eraseCustomer(writer.newId, [customerId(1)]).drafts);
    assert.equal((await db.books.customers.get(customerId(1)))?.name, '');
    await barred(entry!);
    await putRight(db, server({ [`customers ${customerId(1)}`]: stood! }));
    assert.equal((await db.books.customers.get(customerId(1)))?.name, 'Wren');
  });

  it('undoes nothing of what only the server reads, and goes on', async () => {
    const body = { sale: idOf(41, 1), way: 'email', isGift: false, customer: null } as const;
    const to = { to: 'wren@green.example' };
    const [asked] = await say([
      privateDraft('receipt.asked', writer.newId(), body, 'sixteen-letters-', to),
    ]);
    const [priced] = await say([goods(writer, 1, 1)]);
    await barred(asked!);
    await barred(priced!);
    assert.equal(await putRight(db, server({})), true);
    assert.equal(await price(), undefined);
  });

  it('waits where nobody answers', async () => {
    const [entry] = await say([goods(writer, 1, 1)]);
    await barred(entry!);
    const silent = {
      ask: () => Promise.resolve({ came: 'nothing', why: 'silence' }),
    } as unknown as Transport;
    assert.equal(await putRight(db, silent), false);
    assert.equal(await price(), 1);
  });
});

describe('letting go of what is past', () => {
  const eventOn = (n: number, date: string): Draft =>
    draft('event.set', other.newId(), idOf(2, n), {
      ...eventBody(`Event ${String(n)}`),
      id: idOf(2, n),
      days: [{ date, opens: '09:00', closes: '16:00' }],
    });

  it('keeps recent documents, what is not sent, open cards and heads; the rest goes', async () => {
    await heard([eventOn(1, '2026-11-22'), eventOn(7, '2026-09-01')], NOW, 1);
    const long = NOW - 80 * DAY;
    clock = long;
    // Long ago: sent and not sent, at an event that is past.
    const atPast = (drafts: readonly Draft[]): readonly Draft[] =>
      drafts.map((each) => ({ ...each, event: idOf(2, 7) }));
    const first = await say(atPast(writer.sale([[1, 1]], 0, long)));
    await db.write('standing', { ...NO_STANDING, sent: first.at(-1)!.seq });
    const unsent = await say(atPast(writer.sale([[2, 1]], 0, long)));
    const asked = (n: number): Draft =>
      draft('payment.asked', other.newId(), idOf(2, 7), {
        payment: idOf(40, n),
        slip: idOf(20, 1),
        way: idOf(32, 9),
        amount: 5,
      });
    const result = draft('payment.result', other.newId(), idOf(2, 7), {
      payment: idOf(40, 2),
      state: 'declined',
      amount: 0,
      approval: '',
      acquirer: '',
      reason: '',
    });
    await receive(db, deviceId(1), {
      entries: new DeviceWriter(3).append([asked(1), asked(2), result], long),
      position: 2,
    });
    clock = NOW;
    await say(writer.sale([[1, 1]], 0, NOW));
    const head = await db.read('head');
    // One that is not back at its card yet, and one that is.
    const refund = { ...{ event: idOf(2, 7), device: deviceId(1), askedStamp: 'x' }, amount: 100 };
    await db.table('cardRefunds').bulkPut([
      { ...refund, id: idOf(41, 1), payment: idOf(40, 1), state: '' },
      { ...refund, id: idOf(41, 2), payment: idOf(40, 1), state: 'refunded' },
    ]);
    assert.ok((await prune(db, NOW)) > 5);
    assert.deepEqual(await db.books.cardRefunds.toCollection().primaryKeys(), [idOf(41, 1)]);
    assert.deepEqual(
      (await db.books.sales.toArray()).map(({ event }) => event),
      [EVENT],
    );
    assert.equal(await db.books.eventItems.where('event').equals(idOf(2, 7)).count(), 0);
    assert.equal(await db.books.eventTotals.count(), 2, 'what each event came to stays');
    assert.deepEqual(
      (await db.books.cardPayments.toArray()).map(({ id }) => id),
      [idOf(40, 1)],
    );
    const left = await ownEntriesAfter(db, 0, 100);
    assert.ok(!left.some(({ id }) => id === first[0]!.id));
    assert.ok(unsent.every(({ id }) => left.some((each) => each.id === id)));
    assert.deepEqual(await db.read('head'), head);
    // The chain goes on from where it was.
    const [next] = await say([goods(writer, 1, 5)]);
    assert.equal(next?.prev, head?.hash);
    assert.equal(await prune(db, NOW), 0, 'and there is nothing more to let go of');
  });
});

describe('a device that had no network for too long', () => {
  it('forgets all but what it had not sent, and comes back with that sent', async () => {
    await heard([goods(other, 1, 450)], NOW, 1);
    const entries = await say(writer.sale([[1, 1]], 0, NOW));
    await forgetAll(db);
    for (const table of deviceTables) assert.equal(await db.table(table).count(), 0, table);
    assert.equal((await ownEntriesAfter(db, 0, 10)).length, entries.length);
    let isDown = true;
    const sent: number[] = [];
    const stood = { id: itemId(1), setStamp: 'x', price: 450 };
    const transport = {
      portion: new PortionSize(),
      push: (batch: readonly Entry[]) => {
        if (isDown) return Promise.resolve({ came: 'nothing', why: 'silence' });
        sent.push(...batch.map(({ seq }) => seq));
        const answer = { have: batch.at(-1)!.seq, refused: null, kept: [], held: [], now: NOW };
        return Promise.resolve({ came: 'answer', answer });
      },
      start: () =>
        Promise.resolve({
          came: 'answer',
          answer: {
            position: 9,
            received: {},
            clock: { millis: NOW, counter: 0 },
            rows: { items: [stood] },
          },
        }),
    } as unknown as Transport;
    assert.deepEqual(await comeBack(db, transport), { isBack: false, left: entries.length });
    isDown = false;
    assert.deepEqual(await comeBack(db, transport), { isBack: true, left: 0 });
    assert.deepEqual(sent, [1, 2]);
    assert.equal(await price(), 450);
    // What it wrote is in the rows of the server already: it is not added a second time.
    await daybook.settle();
    assert.equal(await db.books.sales.count(), 0);
    assert.equal(await db.read('forgotten'), undefined);
  });
});
