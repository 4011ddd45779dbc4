import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import type { Row } from '../books/tables';
import { readEntry } from '../daybook/read-entry';
import { DeviceWriter, eventBody, idOf } from '../testing/arbitrary-daybook';
import { localTime } from './local-time';
import { setEventTaxes } from './set-taxes';
import { differencesBetween, takingsOf, type EventRows } from './takings';
import { byDate, eventsNear, todaysEvent } from './todays-event';

const event = (n: number, date: string, stage: string): Row<'events'> => ({
  ...eventBody(`Event ${String(n)}`),
  id: idOf(2, n),
  days: [{ date, opens: '09:00', closes: '16:00' }],
  setStamp: 'x',
  stage,
  stageStamp: 'x',
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
    assert.deepEqual([entry?.body['swaps'], entry?.body['name']], [[{ from: a, to: b }], 'Green']);
  });
});
