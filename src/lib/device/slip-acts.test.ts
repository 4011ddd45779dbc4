/** Touches that follow each other before the first is on disk: each is done on the slip it was meant for. */
import assert from 'node:assert/strict';
import { beforeEach, describe, it } from 'node:test';
import { IDBFactory, IDBKeyRange } from 'fake-indexeddb';
import { keptSlips } from '../core/set-aside/kept-slips';
import { putItem, type OpenSlip } from '../core/slip/open-slip';
import { BUSINESS, deviceId, EVENT, item } from '../core/testing/made-up-business';
import { DeviceDatabase } from './database';
import { DeviceDaybook } from './daybook';
import { newId } from './new-id';
import { moveLineTo, setAside, takeUpSlip, type SlipDesk } from './slip-acts';
import { SlipQueue, type SlipSurroundings } from './slip-queue';

const NOW = Date.UTC(2026, 10, 22, 9);
/** Nothing is refused, and everything reaches the disk. */
const surroundings: SlipSurroundings = {
  newId,
  seen: () => Promise.resolve(),
  forbids: () => null,
  onShown: () => undefined,
  onRefused: ({ code }) => assert.fail(code),
  onFault: (error) => assert.equal(error, null),
};
let db: DeviceDatabase;
let queue: SlipQueue;
let desk: SlipDesk;

beforeEach(async () => {
  db = new DeviceDatabase('acts', { indexedDB: new IDBFactory(), IDBKeyRange });
  await db.write('identity', { business: BUSINESS, device: deviceId(1), number: 1, token: 'x' });
  queue = new SlipQueue(db, surroundings);
  desk = {
    daybook: new DeviceDaybook(db, { now: () => NOW }),
    event: EVENT,
    slip: {
      get current() {
        return queue.shown;
      },
      act: async (run) => await queue.act(run),
    },
  };
});

const put = (n: number): void => {
  const key = newId();
  assert.equal(
    queue.change((slip) => putItem(slip, item(n, 100), 1000, key)),
    null,
  );
};
const goods = (slip: OpenSlip): (string | null)[] => slip.lines.map((line) => line.item);
const listed = async () => {
  await desk.daybook.settle();
  return keptSlips(await db.books.slips.toArray(), await db.books.slipLines.toArray());
};
/** Puts goods on a slip and sets it aside. */
const kept = async (...numbers: number[]): Promise<string> => {
  numbers.forEach(put);
  const { id } = queue.shown;
  assert.ok((await setAside(desk)).ok);
  return id;
};

describe('acts on the open slip', () => {
  it('put goods that are tapped while another slip is taken up on that one', async () => {
    const first = await kept(1);
    put(2);
    const second = queue.shown.id;
    const taking = takeUpSlip(desk, first);
    put(3);
    assert.deepEqual(await taking, { ok: true, name: '' });
    await queue.saved();
    assert.equal(queue.shown.id, first);
    assert.deepEqual(goods(queue.shown), [item(1, 100).id, item(3, 100).id]);
    const aside = (await listed()).find(({ row }) => row.id === second);
    assert.deepEqual(
      aside?.lines.map(({ line }) => line?.item),
      [item(2, 100).id],
    );
  });

  it('take a slip up as it is by then, with the line that was moved to it just before', async () => {
    const first = await kept(1);
    put(2);
    put(3);
    const line = queue.shown.lines[0]!.key;
    const moved = moveLineTo(desk, line, first);
    const taken = takeUpSlip(desk, first);
    assert.ok((await moved).ok && (await taken).ok);
    assert.deepEqual(goods(queue.shown), [item(1, 100).id, item(2, 100).id]);
  });

  it('move a line once with a double tap, and speak of no other window', async () => {
    const first = await kept(1);
    put(2);
    put(3);
    const line = queue.shown.lines[0]!.key;
    const both = await Promise.all([moveLineTo(desk, line, first), moveLineTo(desk, line, first)]);
    assert.deepEqual(both, [
      { ok: true, name: '' },
      { ok: false, refusal: { code: 'slip/ended' } },
    ]);
    const row = (await listed()).find((each) => each.row.id === first);
    assert.equal(row?.lines.length, 2);
  });

  it('are done on the slip as it is, by a window that knows it from before it was set aside', async () => {
    const other = new SlipQueue(db, surroundings);
    put(1);
    await queue.saved();
    await other.follow(await db.read('slip'));
    assert.equal(other.shown.lines.length, 1);
    // The first window puts more on it, sets it aside and takes it up again; the other one hears of nothing.
    put(2);
    const { id } = queue.shown;
    assert.ok((await setAside(desk)).ok && (await takeUpSlip(desk, id)).ok);
    const stale: SlipDesk = {
      ...desk,
      slip: {
        get current() {
          return other.shown;
        },
        act: async (run) => await other.act(run),
      },
    };
    assert.deepEqual(await setAside(stale, 'Bench', 'tab'), {
      ok: false,
      refusal: { code: 'slip/gone' },
    });
    assert.deepEqual(goods((await db.read('slip'))!), [item(1, 100).id, item(2, 100).id]);
  });

  it('say that a slip has gone from the list, and leave the one in hand', async () => {
    const first = await kept(1);
    await takeUpSlip(desk, first);
    const { current } = desk.slip;
    assert.deepEqual(await takeUpSlip(desk, newId()), {
      ok: false,
      refusal: { code: 'slip/ended' },
    });
    assert.deepEqual(desk.slip.current, current);
  });

  it('take a slip up once with a double tap', async () => {
    const first = await kept(1);
    put(2);
    const both = await Promise.all([takeUpSlip(desk, first), takeUpSlip(desk, first)]);
    assert.deepEqual(
      both.map((each) => (each.ok ? 'taken up' : each.refusal.code)),
      ['taken up', 'slip/ended'],
    );
    assert.equal(queue.shown.id, first);
  });
});
