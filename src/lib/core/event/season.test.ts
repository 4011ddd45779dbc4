import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { Books } from '../books/books';
import { changesOf } from '../books/changes';
import { untouched } from '../books/table-spec';
import { tables, type Row } from '../books/tables';
import { draft } from '../daybook/kinds';
import type { Stage } from '../daybook/kinds/event-stage';
import { readEntry } from '../daybook/read-entry';
import type { LineNow, WholeList } from '../stock/list-state';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { EVENT, eventBody, idOf, itemId } from '../testing/made-up-business';
import { behindUs, comingUp, needOf, packingOf, seasonOf, spreadFrom, yearsOf } from './season';

const writer = new DeviceWriter(1);
function event(n: number, dates: readonly string[], stage: Stage): Row<'events'> {
  const id = idOf(2, n);
  const days = dates.map((date) => ({ date, opens: '09:00', closes: '16:00' }));
  const books = new Books();
  const drafts = [
    draft('event.set', writer.newId(), id, { ...eventBody(`Event ${String(n)}`), id, days }),
    draft('event.stage', writer.newId(), id, { event: id, stage }),
  ];
  for (const entry of writer.append(drafts, 0)) {
    const read = readEntry(entry);
    if (read.ok) books.apply(changesOf(read.entry));
  }
  return books.row('events', id)!;
}
const today = '2026-11-27';
const events = [
  event(1, ['2026-01-01'], 'settled'),
  event(2, ['2026-11-26', '2026-11-27'], 'trading'),
  event(3, ['2027-02-01'], 'planned'),
  event(4, ['2026-11-20'], 'counted'),
  event(5, ['2026-12-31'], 'packed'),
];
const ids = (all: readonly Row<'events'>[]): readonly number[] =>
  all.map(({ id }) => events.findIndex((each) => each.id === id) + 1);

describe('the season', () => {
  it('hangs the events of a year where they are in it, as done, now or to come', () => {
    const year = seasonOf(events, 2026, today);
    assert.deepEqual(
      year.map(({ event: { id }, is }) => [ids([{ id } as Row<'events'>])[0], is]),
      [
        [1, 'done'],
        [4, 'done'],
        [2, 'now'],
        [5, 'to come'],
      ],
    );
    assert.equal(year[0]?.at, 0);
    assert.ok(year.every(({ at }) => at >= 0 && at < 1));
    assert.deepEqual(ids(seasonOf(events, 2027, today).map((each) => each.event)), [3]);
  });
  it('has the years of its events, and this one', () =>
    assert.deepEqual(yearsOf(events.slice(2, 3), today), [2026, 2027]));
  it('says what each needs next', () =>
    assert.deepEqual(events.map(needOf), ['nothing', 'sell', 'pack', 'settle', 'open']));
  it('lists what comes, the nearest first, and what is behind us, the latest first', () => {
    assert.deepEqual(ids(comingUp(events, today)), [2, 5, 3]);
    assert.deepEqual(ids(behindUs(events, today)), [4, 1]);
  });
});

describe('pennants where dates crowd', () => {
  it('hang in their order, far enough apart to be told apart, and only some have a name', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 364 }), { maxLength: 40 }), (days) => {
        const crowd = days.map((day, n) => ({
          ...events[0]!,
          id: idOf(2, n + 100),
          days: [
            {
              date: new Date(Date.UTC(2026, 0, 1 + day)).toISOString().slice(0, 10),
              opens: '09:00',
              closes: '16:00',
            },
          ],
        }));
        const pennants = seasonOf(crowd, 2026, '2026-06-01');
        assert.equal(pennants.length, days.length);
        const gap = Math.min(0.034, 1 / Math.max(1, days.length)) - 1e-9;
        const named = pennants.filter(({ isNamed }) => isNamed);
        for (const [n, { at }] of pennants.entries()) {
          assert.ok(at >= -1e-9 && at <= 1 + 1e-9);
          const before = pennants[n - 1];
          if (before !== undefined) assert.ok(at - before.at >= gap);
        }
        for (const [n, { at }] of named.entries()) {
          const before = named[n - 1];
          if (before !== undefined) assert.ok(at - before.at >= 0.075 - 1e-9);
        }
        if (days.length > 0) assert.ok(named.length > 0);
      }),
    );
  });
});

describe('a crowd of pennants that is touched', () => {
  const rounded = (at: readonly number[], touched: number) =>
    [...spreadFrom(at, touched)].map(([n, where]) => [n, Math.round(where * 1000)]);

  it('makes room to both sides of that one, three at most to each, and never past an end', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 1, maxLength: 40 }),
        fc.nat(39),
        (unsorted, nth) => {
          const at = unsorted.toSorted((a, b) => a - b);
          const touched = nth % at.length;
          const moved = [...spreadFrom(at, touched)].toSorted(([a], [b]) => a - b);
          if (moved.length === 0) return;
          assert.ok(moved.length > 1 && moved.length <= 7);
          for (const [n, [place, where]] of moved.entries()) {
            assert.ok(where >= -1e-9 && where <= 1 + 1e-9);
            assert.ok(Math.abs(place - touched) <= 3);
            const before = moved[n - 1];
            if (before === undefined) continue;
            assert.equal(place, before[0] + 1, 'they are neighbours');
            assert.ok(Math.abs(where - before[1] - 0.075) < 1e-9);
          }
        },
      ),
    );
  });

  it('stays where it is, unless that is at an end', () => {
    assert.deepEqual(rounded([0.4, 0.5, 0.53, 0.56, 0.8], 2), [
      [2, 530],
      [1, 455],
      [3, 605],
    ]);
    assert.deepEqual(rounded([0.9, 0.95, 1], 2), [
      [2, 1000],
      [1, 925],
      [0, 850],
    ]);
    assert.deepEqual(rounded([0, 0.03, 0.06], 1), [
      [1, 75],
      [0, 0],
      [2, 150],
    ]);
    assert.deepEqual(rounded([0.1, 0.5, 0.9], 1), []);
  });
});

describe('what an event still needs', () => {
  const whole = (stage: '' | 'approved', lines: readonly Partial<LineNow>[]): WholeList => ({
    list: {
      ...(untouched(tables.lists, { id: idOf(50, 1) }) as unknown as Row<'lists'>),
      ...{ use: 'load', event: EVENT, from: 'base', to: EVENT, stage },
    },
    lines: lines.map((line) => ({
      ...{ item: itemId(1), wanted: 0, price: null, note: '', packed: 0, sent: 0, received: 0 },
      ...line,
    })),
  });
  const of = (lists: readonly WholeList[], there = 5000) => packingOf(EVENT, lists, () => there);

  it('is a load list, and then what is short on it', () => {
    assert.equal(of([]).isMade, false);
    assert.equal(of([whole('', [{ wanted: 9000 }])]).isDraft, true);
    const short = of([whole('approved', [{ wanted: 9000, packed: 2000 }])]);
    // Five are there, of which two are packed: three more can be, and four are short.
    assert.deepEqual([short.wanted, short.packed, short.short], [9000, 2000, 4000]);
    assert.equal(of([whole('approved', [{ wanted: 9000 }])], 20_000).short, 0);
    assert.equal(
      packingOf(idOf(2, 9), [whole('approved', [{ wanted: 1 }])], () => 0).isMade,
      false,
    );
  });
});
