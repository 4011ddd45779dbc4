/**
 * One device's counter in two windows, with acts in any order and at any moment. In the end nothing that was
 * tapped is lost, every part belongs to a slip or a sale, every slip was rung up once, and the drawer has what
 * was handed over less what was given back.
 *
 * A run can be repeated with what is printed: SEED and TIMES.
 */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { setImmediate, setTimeout } from 'node:timers/promises';
import fc from 'fast-check';
import { IDBFactory, IDBKeyRange } from 'fake-indexeddb';
import { leftOnSlip } from '../../src/lib/core/loose-end/left-on-slip';
import { soldTwice } from '../../src/lib/core/loose-end/sold-twice';
import { sum } from '../../src/lib/core/money/units';
import { CASH_WAY } from '../../src/lib/core/payment/ways';
import { takePart } from '../../src/lib/core/sale/take-part';
import { keptSlips } from '../../src/lib/core/set-aside/kept-slips';
import { putItem, removeLine, thingsOn, type SlipRefusal } from '../../src/lib/core/slip/open-slip';
import { AT_EVENT, PRICING, VAT } from '../../src/lib/core/testing/a-sale';
import { BUSINESS, deviceId, EVENT, idOf, item } from '../../src/lib/core/testing/made-up-business';
import { DeviceDatabase } from '../../src/lib/device/database';
import { DeviceDaybook, ownEntriesAfter } from '../../src/lib/device/daybook';
import { newId } from '../../src/lib/device/new-id';
import { receive } from '../../src/lib/device/receive';
import {
  giveBack,
  moveLineTo,
  pay,
  setAside,
  takeUpSlip,
  type SlipDesk,
} from '../../src/lib/device/slip-acts';
import { SlipQueue } from '../../src/lib/device/slip-queue';
import { SEED, TIMES } from '../support/random';

const RUNS = 200 * TIMES;
const DRAWER = idOf(4, 1);
const NOW = Date.UTC(2026, 10, 22, 9);

type Does =
  | { readonly does: 'put'; readonly item: number }
  | { readonly does: 'remove' }
  | { readonly does: 'exact cash' }
  | { readonly does: 'part'; readonly amount: number }
  | { readonly does: 'give back' }
  | { readonly does: 'set aside' }
  | { readonly does: 'tab' }
  | { readonly does: 'take up'; readonly which: number }
  | { readonly does: 'move'; readonly which: number }
  | { readonly does: 'follow' };
interface Step {
  readonly window: number;
  readonly what: Does;
  /** What is waited for before the next one: nothing, a turn of the event loop, some milliseconds, all. */
  readonly wait: 'nothing' | 'a turn' | 'a moment' | 'all';
}
const what: fc.Arbitrary<Does> = fc.oneof(
  {
    weight: 6,
    arbitrary: fc.record({
      does: fc.constant('put' as const),
      item: fc.integer({ min: 1, max: 4 }),
    }),
  },
  { weight: 1, arbitrary: fc.constant({ does: 'remove' as const }) },
  { weight: 4, arbitrary: fc.constant({ does: 'exact cash' as const }) },
  {
    weight: 2,
    arbitrary: fc.record({
      does: fc.constant('part' as const),
      amount: fc.integer({ min: 1, max: 300 }),
    }),
  },
  { weight: 1, arbitrary: fc.constant({ does: 'give back' as const }) },
  { weight: 2, arbitrary: fc.constant({ does: 'set aside' as const }) },
  { weight: 1, arbitrary: fc.constant({ does: 'tab' as const }) },
  {
    weight: 2,
    arbitrary: fc.record({ does: fc.constant('take up' as const), which: fc.nat({ max: 3 }) }),
  },
  {
    weight: 1,
    arbitrary: fc.record({ does: fc.constant('move' as const), which: fc.nat({ max: 3 }) }),
  },
  { weight: 2, arbitrary: fc.constant({ does: 'follow' as const }) },
);
const steps = (windows: number): fc.Arbitrary<Step[]> =>
  fc.array(
    fc.record({
      window: fc.nat({ max: windows - 1 }),
      what,
      wait: fc.constantFrom<Step['wait']>(
        'nothing',
        'nothing',
        'a turn',
        'a turn',
        'a moment',
        'all',
      ),
    }),
    { minLength: 2, maxLength: 24 },
  );

class Window {
  readonly daybook: DeviceDaybook;
  readonly queue: SlipQueue;
  readonly desk: SlipDesk;
  /** Taps that were taken, and of them those that were said not to be possible after all. */
  put = 0;
  putRefused = 0;
  /** Handed over less what was given back, in minor units. */
  cash = 0;
  readonly said: string[] = [];

  /** Things that were tapped and that were taken off again, one of each. */
  readonly tapped: string[] = [];
  readonly takenOff = new Set<string>();

  constructor(
    readonly db: DeviceDatabase,
    /** The next thing that is tapped, where each is another one. */
    readonly nextItem: (() => number) | null = null,
  ) {
    this.daybook = new DeviceDaybook(db, { now: () => NOW });
    this.queue = new SlipQueue(db, {
      newId,
      seen: async () => {
        await setImmediate();
      },
      forbids: (before, after): SlipRefusal | null => {
        const more = thingsOn(after) - thingsOn(before);
        if ((before.paid ?? []).length === 0 || more === 0) return null;
        if (more < 0) return { code: 'slip/no-such-line' };
        // Said to the seller: it was tapped while a part was being taken.
        for (const line of after.lines)
          if (!before.lines.includes(line) && line.item !== null) this.takenOff.add(line.item);
        return { code: 'slip/part-paid' };
      },
      onShown: () => undefined,
      onRefused: ({ code }) => {
        if (code === 'slip/part-paid') this.putRefused += 1;
      },
      onFault: () => undefined,
    });
    const { queue, daybook } = this;
    this.desk = {
      daybook,
      event: EVENT,
      slip: {
        get current() {
          return queue.shown;
        },
        act: async (run) => await queue.act(run),
      },
    };
  }

  async do(does: Does): Promise<void> {
    const { desk, queue, db } = this;
    switch (does.does) {
      case 'put': {
        const key = newId();
        const thing = item(this.nextItem?.() ?? does.item, 100);
        const refusal = queue.change((slip) => putItem(slip, thing, 1000, key));
        if (refusal !== null) return;
        this.put += 1;
        this.tapped.push(thing.id);
        return;
      }
      case 'remove': {
        const key = queue.shown.lines.at(-1)?.key ?? '';
        // As many taps are taken back as the line has by then; it may be tried again on another slip.
        queue.change((slip) => {
          const line = slip.lines.find((each) => each.key === key);
          const off = removeLine(slip, key);
          const isPaid = (slip.paid ?? []).length > 0;
          if (off.ok && line?.item != null) this.takenOff.add(line.item);
          if (off.ok && !isPaid) this.removed.set(key, (line?.quantity ?? 0) / 1000);
          else this.removed.delete(key);
          return off;
        });
        return;
      }
      case 'exact cash': {
        await this.#pay(null);
        return;
      }
      case 'part': {
        await this.#pay(does.amount);
        return;
      }
      case 'give back': {
        const part = queue.shown.paid?.at(-1);
        if (part === undefined) return;
        const refusal = await giveBack(desk, [part.id], 'the customer changed their mind');
        if (refusal === null) this.cash -= part.charge - part.change;
        else this.said.push(refusal.code);
        return;
      }
      case 'set aside':
      case 'tab': {
        const kept = await (does.does === 'tab' ? setAside(desk, 'Bench', 'tab') : setAside(desk));
        if (!kept.ok) this.said.push(kept.refusal.code);
        return;
      }
      case 'take up': {
        await this.daybook.settle();
        const all = keptSlips(await db.books.slips.toArray(), await db.books.slipLines.toArray());
        const kept = all[does.which];
        if (kept === undefined) return;
        const taken = await takeUpSlip(desk, kept.row.id);
        if (!taken.ok) this.said.push(taken.refusal.code);
        return;
      }
      case 'move': {
        const all = await db.books.slips.toArray();
        const to = all.filter(({ state, id }) => state === 'open' && id !== queue.shown.id)[
          does.which
        ];
        const line = queue.shown.lines[0];
        if (to === undefined || line === undefined) return;
        const moved = await moveLineTo(desk, line.key, to.id);
        if (!moved.ok) this.said.push(moved.refusal.code);
        return;
      }
      case 'follow':
        await queue.follow(await db.read('slip'));
    }
  }
  readonly removed = new Map<string, number>();

  async #pay(amount: number | null): Promise<void> {
    let paid = 0;
    const done = await pay(this.desk, (slip, { saleNumber: number }) => {
      const made = takePart({
        newId,
        slip,
        pricing: PRICING,
        taxes: [VAT],
        event: AT_EVENT,
        deviceNumber: 1,
        number,
        now: NOW,
        way: CASH_WAY,
        drawer: DRAWER,
        amount,
      });
      if (made.ok) paid = made.part.charge - made.part.change;
      return made;
    });
    if (done.ok) this.cash += paid;
    else this.said.push(done.refusal.code);
  }
}

async function run(all: readonly Step[], windows: number): Promise<Window[]> {
  const indexedDB = new IDBFactory();
  const open = (): DeviceDatabase => new DeviceDatabase('counter', { indexedDB, IDBKeyRange });
  const first = open();
  await first.write('identity', { business: BUSINESS, device: deviceId(1), number: 1, token: 'x' });
  const at = Array.from({ length: windows }, (_, n) => new Window(n === 0 ? first : open()));
  const under: Promise<void>[] = [];
  for (const { window, what: does, wait } of all) {
    under.push(at[window]!.do(does));
    if (wait === 'a turn') await setImmediate();
    if (wait === 'a moment') await setTimeout(2);
    if (wait === 'all') await Promise.all(under);
  }
  await Promise.all(under);
  for (const each of at) await each.queue.saved();
  for (const each of at) await each.daybook.settle();
  await holds(at).catch((error: unknown) => {
    // fast-check tells the steps; what they led to is told here.
    console.log(
      error instanceof Error ? error.message : error,
      at.map(({ said }) => said),
    );
    throw error;
  });
  for (const { db } of at) db.close();
  return at;
}

async function holds(windows: readonly Window[]): Promise<void> {
  const { db } = windows[0]!;
  const { books } = db;
  const [sales, saleLines, payments, reversals, slips, lines] = await Promise.all([
    books.sales.toArray(),
    books.saleLines.toArray(),
    books.payments.toArray(),
    books.reversals.toArray(),
    books.slips.toArray(),
    books.slipLines.toArray(),
  ]);
  const open = await db.read('slip');
  // Every slip is rung up once.
  assert.equal(new Set(sales.map(({ slip }) => slip)).size, sales.length, 'rung up twice');
  // Every part belongs to a sale or to the slip that is open, or was given back.
  const back = new Set(reversals.map(({ payment }) => payment));
  for (const { id, slip } of payments) {
    const isRung = sales.some((sale) => sale.payments.includes(id) && sale.slip === slip);
    const isOpen = open?.id === slip && open.paid?.some((part) => part.id === id) === true;
    assert.ok(isRung || isOpen || back.has(id), 'a part with neither slip nor sale');
  }
  // What is not rung up and was not taken off is on the open slip or on a list.
  const waiting = new Set(
    slips.filter(({ id, state }) => state !== 'gone' && id !== open?.id).map(({ id }) => id),
  );
  const there =
    sum(saleLines.map(({ quantity }) => quantity)) +
    sum((open?.lines ?? []).map(({ quantity }) => quantity)) +
    sum(lines.map(({ slip, line }) => (waiting.has(slip) ? (line?.quantity ?? 0) : 0)));
  const taps = sum(windows.map(({ put, putRefused }) => put - putRefused));
  const removed = sum(windows.flatMap((each) => [...each.removed.values()]));
  assert.equal(there / 1000, taps - removed, 'something that was tapped is lost, or there twice');
  // The drawer has what was handed over less what was given.
  const [drawer] = await books.drawerSums.toArray();
  assert.equal(
    drawer === undefined ? 0 : drawer.handed - drawer.change - drawer.back,
    sum(windows.map(({ cash }) => cash)),
    'the drawer',
  );
}

describe('the counter of one device', () => {
  it('loses nothing and rings nothing up twice, in two windows at any moment', async () => {
    console.log(`SEED=${String(SEED)} TIMES=${String(TIMES)}`);
    await fc.assert(
      fc.asyncProperty(steps(2), async (all) => void (await run(all, 2))),
      { numRuns: RUNS, seed: SEED, endOnFailure: false },
    );
  });

  it('never speaks of another window while there is one', async () => {
    await fc.assert(
      fc.asyncProperty(steps(1), async (all) => {
        const [window] = await run(all, 1);
        assert.ok(!window!.said.includes('slip/gone'), window!.said.join());
      }),
      { numRuns: RUNS / 2, seed: SEED },
    );
  });
});

/** What one device wrote and another has not heard of yet. */
async function hear(at: Window, of: Window, from: number): Promise<number> {
  const entries = await ownEntriesAfter(of.db, from, 10_000);
  const own = (await at.db.read('identity'))!.device;
  const last = entries.at(-1)?.seq ?? from;
  if (entries.length > 0) await receive(at.db, own, { entries, position: last });
  return last;
}

type Apart = Omit<Step, 'what'> & { readonly what: Does | { readonly does: 'sync' } };
const apart: fc.Arbitrary<Apart[]> = fc.array(
  fc.record({
    window: fc.nat({ max: 1 }),
    what: fc.oneof(
      { weight: 4, arbitrary: what },
      { weight: 1, arbitrary: fc.constant({ does: 'sync' as const }) },
    ),
    wait: fc.constantFrom<Step['wait']>('nothing', 'a turn', 'all', 'all'),
  }),
  { minLength: 4, maxLength: 30 },
);

/** Two devices with a tab between them, in touch now and then. */
async function runApart(all: readonly Apart[]): Promise<void> {
  let things = 0;
  const at = await Promise.all(
    [1, 2].map(async (n) => {
      const indexedDB = new IDBFactory();
      const db = new DeviceDatabase('counter', { indexedDB, IDBKeyRange });
      const identity = { business: BUSINESS, device: deviceId(n), number: n, token: 'x' };
      await db.write('identity', identity);
      return new Window(db, () => (things += 1));
    }),
  );
  const [first, second] = at as [Window, Window];
  const heard = [0, 0];
  const sync = async (): Promise<void> => {
    heard[0] = await hear(first, second, heard[0]!);
    heard[1] = await hear(second, first, heard[1]!);
  };
  let under: Promise<unknown>[] = [];
  for (const { window, what: does, wait } of all) {
    if (does.does === 'sync') await sync();
    else under.push(at[window]!.do(does));
    if (wait === 'a turn') await setImmediate();
    if (wait !== 'all') continue;
    await Promise.all(under);
    under = [];
  }
  await Promise.all(under);
  for (const { queue, daybook } of at) {
    await queue.saved();
    await daybook.settle();
  }
  await sync();
  const { books } = first.db;
  const [sales, saleLines, slips, lines] = await Promise.all([
    books.sales.toArray(),
    books.saleLines.toArray(),
    books.slips.toArray(),
    books.slipLines.toArray(),
  ]);
  const waiting = new Set(slips.filter(({ state }) => state !== 'gone').map(({ id }) => id));
  const found = new Set<string | null>([
    ...saleLines.map((line) => line.item),
    ...at.flatMap(({ queue }) => queue.shown.lines.map((line) => line.item)),
    ...lines.flatMap(({ slip, line }) => (waiting.has(slip) ? (line?.item ?? null) : null)),
    ...leftOnSlip(slips, lines, []).flatMap((left) => left.lines.map((line) => line.item)),
    ...at.flatMap(({ takenOff }) => [...takenOff]),
  ]);
  for (const thing of at.flatMap(({ tapped }) => tapped))
    assert.ok(found.has(thing), `${thing} was tapped, and is nowhere`);
  // What was rung up twice is named.
  const named = new Set(
    soldTwice(sales, []).flatMap(({ sales: both }) => both.map(({ id }) => id)),
  );
  for (const thing of at.flatMap(({ tapped }) => tapped)) {
    const rung = saleLines.filter((line) => line.item === thing);
    if (rung.length > 1)
      assert.ok(
        rung.every(({ sale }) => named.has(sale)),
        `${thing} was sold twice, and nothing says so`,
      );
  }
  for (const { db } of at) db.close();
}

describe('two devices that are out of touch', () => {
  it('lose nothing that was put on a tab, and what they both rang up is named', async () => {
    await fc.assert(
      fc.asyncProperty(apart, async (all) => await runApart(all)),
      { numRuns: RUNS / 2, seed: SEED },
    );
  });
});
