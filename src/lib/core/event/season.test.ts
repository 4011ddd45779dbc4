import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { Books } from '../books/books';
import { changesOf } from '../books/changes';
import type { Row } from '../books/tables';
import { draft } from '../daybook/kinds';
import type { Stage } from '../daybook/kinds/event-stage';
import { readEntry } from '../daybook/read-entry';
import { DeviceWriter, eventBody, idOf } from '../testing/arbitrary-daybook';
import { behindUs, comingUp, needOf, seasonOf, yearsOf } from './season';

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
