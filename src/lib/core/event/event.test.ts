import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { Books } from '../books/books';
import { changesOf } from '../books/changes';
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import type { Entry } from '../daybook/entry';
import { draft } from '../daybook/kinds';
import type { Stage } from '../daybook/kinds/event-stage';
import { readEntry } from '../daybook/read-entry';
import { setEventWays } from '../payment/set-way';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { EVENT, eventBody, idOf } from '../testing/made-up-business';
import { localTime } from './local-time';
import { setEventTaxes } from './set-taxes';
import { earlierStages, goBack, stageOf, type BackTo } from './stage';
import { differencesBetween, takingsOf, type EventRows } from './takings';
import { byDate, eventsNear, todaysEvent } from './todays-event';

const UNSTAMPED = {
  swaps: [],
  ways: null,
  taxesStamp: '',
  waysStamp: '',
  packedStamp: '',
  tradingStamp: '',
  countedStamp: '',
  settledStamp: '',
  backStamp: '',
  backTo: '' as const,
  backWhy: '',
  fee: null,
  costs: [],
  single: [],
  over: [],
  duty: [],
  devices: [],
  things: [],
  costsStamp: '',
  pricesStamp: '',
  peopleStamp: '',
  bringStamp: '',
};
const event = (n: number, date: string, stage: Stage): Row<'events'> => ({
  ...eventBody(`Event ${String(n)}`),
  id: idOf(2, n),
  days: [{ date, opens: '09:00', closes: '16:00' }],
  ...UNSTAMPED,
  setStamp: 'x',
  ...(stage === 'planned' ? {} : { [`${stage}Stamp`]: 'x' }),
});

describe('the event of today', () => {
  const now = Date.UTC(2026, 10, 22, 10);
  it('is the one that is trading', () => {
    const events = [
      event(1, '2026-11-22', 'planned'),
      event(2, '2026-11-22', 'trading'),
      event(3, '2026-11-23', 'trading'),
    ];
    assert.equal(todaysEvent(events, now)?.id, idOf(2, 2));
  });
  it('is the one that the device was given, if that one is on', () => {
    const events = [event(1, '2026-11-22', 'planned'), event(2, '2026-11-22', 'trading')];
    assert.equal(todaysEvent(events, now, idOf(2, 1))?.id, idOf(2, 1));
    assert.equal(todaysEvent(events, now, idOf(2, 9))?.id, idOf(2, 2));
  });
  it('is none on a day without one', () =>
    assert.equal(todaysEvent([event(1, '2026-11-23', 'trading')], now), undefined));
  it('is not one of which only the stage has arrived', () =>
    assert.equal(
      todaysEvent([{ ...event(1, '2026-11-22', 'trading'), setStamp: '' }], now),
      undefined,
    ));
  it('is what somebody chose by hand, for the day of the device’s clock and while it is not settled', () => {
    // The clock is a day behind: the event of the 23rd is going on.
    const events = [event(1, '2026-11-22', 'planned'), event(2, '2026-11-23', 'packed')];
    const chosen = { id: idOf(2, 2), day: '2026-11-22' };
    assert.equal(todaysEvent(events, now, null, chosen)?.id, idOf(2, 2));
    assert.equal(todaysEvent(events, now, idOf(2, 1), chosen)?.id, idOf(2, 2));
    assert.equal(todaysEvent(events, now + 86_400_000, null, chosen)?.id, idOf(2, 2));
    const later = { ...chosen, day: '2026-11-21' };
    assert.equal(todaysEvent(events, now, null, later)?.id, idOf(2, 1));
    const settled = [event(2, '2026-11-23', 'settled')];
    assert.equal(todaysEvent(settled, now, null, chosen), undefined);
  });
  it('may be one of those near it, as far as they are not settled', () => {
    const events = [
      event(1, '2026-11-18', 'packed'),
      event(2, '2026-11-23', 'planned'),
      event(3, '2026-11-21', 'counted'),
      event(4, '2026-11-21', 'settled'),
    ];
    assert.deepEqual(
      eventsNear(events, now).map(({ id }) => id),
      [idOf(2, 3), idOf(2, 2)],
    );
  });
  it('follows the time zone of the event', () => {
    const kite = { ...event(1, '2026-11-21', 'trading'), timeZone: 'America/Chicago' };
    assert.equal(todaysEvent([kite], Date.UTC(2026, 10, 22, 3))?.id, kite.id);
  });
  it('knows summer time', () =>
    assert.deepEqual(localTime(Date.UTC(2026, 6, 1, 23, 15), 'Europe/London'), {
      day: '2026-07-02',
      hour: 0,
      minute: 15,
    }));
  it('lists the newest first', () =>
    assert.deepEqual(
      byDate([event(1, '2026-01-01', 'settled'), event(2, '2026-03-01', 'planned')]).map(
        ({ id }) => id,
      ),
      [idOf(2, 2), idOf(2, 1)],
    ));
});

describe('an event’s takings', () => {
  const id = idOf(2, 1);
  const rows: EventRows = {
    totals: { event: id, sales: 2, takings: 900, tax: 150, units: 3, cost: 0 },
    paidIn: undefined,
    items: [{ event: id, item: 'b', quantity: 2000, takings: 900, tax: 150 }],
    hours: [],
    taxes: [],
    ways: [{ event: id, way: 'cash', parts: 2, takings: 900, surcharge: 0, tips: 0 }],
    tips: [],
    stock: [
      { place: id, item: 'c', quantity: 4000 },
      { place: id, item: 'b', quantity: -1000 },
    ],
  };
  it('list what was sold and what was only brought', () =>
    assert.deepEqual(
      takingsOf(rows).items.map(({ item, sold, left }) => [item, sold, left]),
      [
        ['b', 2000, -1000],
        ['c', 0, 4000],
      ],
    ));
  it('agree with themselves', () =>
    assert.deepEqual(
      differencesBetween(takingsOf(rows), takingsOf({ ...rows, stock: [...rows.stock].reverse() })),
      [],
    ));
  it('name every figure that does not agree', () => {
    const other = takingsOf({ ...rows, stock: rows.stock.slice(1), ways: [] });
    assert.deepEqual(differencesBetween(takingsOf(rows), other), [
      { where: 'items.c.sold', device: 0, server: null },
      { where: 'items.c.takings', device: 0, server: null },
      { where: 'items.c.left', device: 4000, server: null },
      { where: 'ways.cash.takings', device: 900, server: 0 },
    ]);
  });
});

describe('taxes of an event', () => {
  it('are swaps that change something, each tax once; the rest of the event stays', () => {
    const writer = new DeviceWriter(1);
    const green = { ...event(1, '2026-11-22', 'trading'), name: 'Green' };
    const [a, b] = [idOf(3, 1), idOf(3, 2)];
    const { drafts } = setEventTaxes(writer.newId, green, [
      { from: a, to: b },
      { from: b, to: b },
      { from: a, to: null },
    ]);
    const [entry] = writer.append(drafts, 0);
    assert.ok(readEntry(entry!).ok);
    assert.deepEqual(entry?.body, { event: green.id, swaps: [{ from: a, to: b }] });
  });
});

describe('what two people set up at one event at once', () => {
  it('stays, if it is not the same', () => {
    const [here, there] = [new DeviceWriter(1), new DeviceWriter(2)];
    const from = idOf(3, 1);
    const begun = here.append([draft('event.set', here.newId(), EVENT, eventBody('Green'))], 0);
    const taxes = there.append(
      setEventTaxes(there.newId, { id: EVENT }, [{ from, to: null }]).drafts,
      5,
    );
    const ways = here.append(setEventWays(here.newId, { id: EVENT }, ['cash']).drafts, 6);
    const named = there.append([draft('event.set', there.newId(), EVENT, eventBody('Blue'))], 4);
    // An owner finds each of them among what was changed.
    const books = new Books();
    for (const entry of [...begun, ...taxes, ...ways]) {
      const read = readEntry(entry);
      if (read.ok) books.apply(changesOf(read.entry));
    }
    assert.deepEqual(
      books
        .rows('acts')
        .map(({ what }) => what)
        .sort(),
      ['event.taxes', 'event.ways', 'set-up'],
    );
    for (const entries of [
      [begun, taxes, ways, named],
      [named, ways, taxes, begun],
    ]) {
      const { name, swaps, ways: open } = eventAfter(entries.flat());
      assert.deepEqual([name, swaps, open], ['Blue', [{ from, to: null }], ['cash']]);
    }
  });
  it('was one thing in what was written before', () => {
    const writer = new DeviceWriter(1);
    const body = { ...eventBody('Green'), swaps: [{ from: idOf(3, 1), to: null }], ways: ['cash'] };
    const old = { ...draft('event.set', writer.newId(), EVENT, body), v: 3 };
    const { swaps, ways, taxesStamp, waysStamp, setStamp } = eventAfter(writer.append([old], 0));
    assert.deepEqual([swaps, ways], [body.swaps, body.ways]);
    assert.deepEqual([taxesStamp, waysStamp], [setStamp, setStamp]);
  });
});

describe('the stage of an event', () => {
  const stage = (to: Stage): Draft =>
    draft('event.stage', idOf(90, 1), EVENT, { event: EVENT, stage: to });
  const [here, there] = [new DeviceWriter(1), new DeviceWriter(2)];
  const counted = here.append([stage('packed'), stage('trading'), stage('counted')], 1000);
  // Out of touch, it has not heard that it was counted.
  const late = there.append([stage('trading')], 2000);
  it('moves forward by itself only, in whichever order it is heard of', () => {
    assert.equal(stageOf(eventAfter([...counted, ...late])), 'counted');
    assert.equal(stageOf(eventAfter([...late, ...counted])), 'counted');
  });
  it('goes back by an entry that says why, and forward from there', () => {
    const event = { ...eventAfter([...counted, ...late]), id: EVENT };
    assert.deepEqual(earlierStages(event), ['trading', 'packed', 'planned']);
    const outcome = goBack({
      newId: here.newId,
      event,
      to: 'packed',
      why: ' counted the wrong tin ',
    });
    assert.ok(outcome.ok);
    const back = here.append(outcome.drafts, 3000);
    assert.ok(back.every((entry) => readEntry(entry).ok));
    const after = eventAfter([...back, ...counted, ...late]);
    assert.deepEqual([stageOf(after), after.backWhy], ['packed', 'counted the wrong tin']);
    const again = there.append([stage('trading')], 4000);
    assert.equal(stageOf(eventAfter([...again, ...back, ...late, ...counted])), 'trading');
    const less = there.append([stage('packed')], 5000);
    assert.equal(stageOf(eventAfter([...less, ...again, ...back, ...counted])), 'trading');
  });
  it('goes back neither without a reason nor forward', () => {
    const event = { ...eventAfter(counted), id: EVENT };
    const to = (stage: BackTo, why: string) => {
      const outcome = goBack({ newId: here.newId, event, to: stage, why });
      return outcome.ok ? 'ok' : outcome.refusal.code;
    };
    assert.deepEqual(
      [to('trading', ' '), to('counted', 'x'), to('planned', 'x')],
      ['stage/no-reason', 'stage/not-earlier', 'ok'],
    );
  });
});

/** The event's row as entries leave it. */
function eventAfter(entries: readonly Entry[]): Row<'events'> {
  const books = new Books();
  for (const entry of entries) {
    const read = readEntry(entry);
    if (!read.ok) throw new Error(`${entry.kind} cannot be read`);
    books.apply(changesOf(read.entry));
  }
  const row = books.row('events', EVENT);
  if (row === undefined) throw new Error('there is no event');
  return row;
}
