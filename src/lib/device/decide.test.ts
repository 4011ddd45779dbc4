/** What is decided by the rows is decided once, whatever two taps or two windows ask for. */
import assert from 'node:assert/strict';
import { beforeEach, describe, it } from 'node:test';
import { IDBFactory, IDBKeyRange } from 'fake-indexeddb';
import { openDrawer } from '../core/drawer/commands';
import { stageOf } from '../core/event/stage';
import { loadAll } from '../core/founding/first-day';
import { BASE } from '../core/books/tables';
import { draft } from '../core/daybook/kinds';
import { DeviceWriter } from '../core/testing/arbitrary-daybook';
import { BUSINESS, deviceId, EVENT, idOf, itemId } from '../core/testing/made-up-business';
import { DeviceDatabase } from './database';
import { DeviceDaybook } from './daybook';
import { openDrawersOf } from './event-rows';
import { newId } from './new-id';
import { voidOnce } from './void-sale';

const NOW = Date.UTC(2026, 10, 22, 9);
const writer = new DeviceWriter(9);
let windows: readonly [DeviceDaybook, DeviceDaybook];

beforeEach(async () => {
  const indexedDB = new IDBFactory();
  const [first, second] = [1, 2].map(
    () =>
      new DeviceDaybook(new DeviceDatabase('decide', { indexedDB, IDBKeyRange }), {
        now: () => NOW,
      }),
  );
  windows = [first!, second!];
  await first!.db.write('identity', {
    business: BUSINESS,
    device: deviceId(1),
    number: 1,
    token: 'x',
  });
});

/** A double tap in the first window, and a tap in the second, all at once. */
const fromAll = async <T>(act: (daybook: DeviceDaybook) => Promise<T>): Promise<T[]> =>
  await Promise.all([windows[0], windows[0], windows[1]].map(act));

describe('what is decided by the rows', () => {
  it('voids a sale once', async () => {
    const { db } = windows[0];
    const drafts = writer.sale([[1, 2]], 0, NOW);
    await windows[0].append(() => ({ ok: true, drafts }));
    await windows[0].settle();
    const [sale] = await db.books.sales.toArray();
    const drawer = (await db.books.payments.toArray())[0]?.drawer;
    const counts = [{ value: 100, count: 1 }];
    const opened = openDrawer({ id: drawer!, event: EVENT, name: 'Tin', counts, open: [] });
    assert.ok(opened.ok);
    await windows[0].append(() => opened);
    const said = await fromAll(
      async (daybook) =>
        await voidOnce(daybook, {
          sale: sale!.id,
          reason: 'wrong customer',
          event: EVENT,
          lentBy: undefined,
        }),
    );
    assert.deepEqual(said.map((each) => (each.ok ? 'voided' : each.refusal.code)).sort(), [
      'void/already',
      'void/already',
      'voided',
    ]);
    assert.equal((await db.books.eventTotals.get(EVENT))?.takings, 0);
  });

  it('opens a drawer once', async () => {
    const said = await fromAll(
      async (daybook) =>
        await daybook.decide(
          async () => await openDrawersOf(daybook.db, EVENT),
          (open) =>
            openDrawer({
              id: newId(),
              event: EVENT,
              name: 'Drawer 1',
              counts: [{ value: 500, count: 4 }],
              open,
            }),
        ),
    );
    assert.equal(said.filter(({ ok }) => ok).length, 1);
    assert.equal(await windows[0].db.books.drawers.count(), 1);
  });

  it('loads everything once', async () => {
    const { db } = windows[0];
    const goods = [{ item: itemId(1), quantity: 5000 }];
    const body = { reason: 'delivered', from: 'suppliers', to: BASE, goods, note: '' } as const;
    await windows[0].append(() => ({
      ok: true,
      drafts: [draft('stock.moved', idOf(80, 1), null, body)],
    }));
    await fromAll(
      async (daybook) =>
        await daybook.decide(
          async () => ({
            event: await daybook.db.books.events.get(EVENT),
            stock: await daybook.db.books.stock.toArray(),
          }),
          ({ event, stock }) => ({
            ok: true as const,
            drafts: loadAll(newId, EVENT, event === undefined ? 'planned' : stageOf(event), stock),
          }),
        ),
    );
    assert.equal((await db.books.stock.get([EVENT, itemId(1)]))?.quantity, 5000);
    assert.equal((await db.books.stock.get([BASE, itemId(1)]))?.quantity, 0);
  });
});
