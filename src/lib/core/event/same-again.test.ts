import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { nextDays, nthOf, ruleOf, type Recurrence } from './same-again';

const hours = { opens: '09:00', closes: '16:00' };
const next = (dates: readonly string[], recurrence: Recurrence, notBefore = '2000-01-01') =>
  nextDays(
    dates.map((date) => ({ date, ...hours })),
    recurrence,
    notBefore,
  )?.map(({ date }) => date);

describe('the same again', () => {
  it('is in so many weeks, also over a change of clocks, with the hours on the wall as they were', () => {
    assert.deepEqual(next(['2026-03-28'], { every: 'weeks', count: 1 }), ['2026-04-04']);
    assert.deepEqual(next(['2026-10-24', '2026-10-25'], { every: 'weeks', count: 3 }), [
      '2026-11-14',
      '2026-11-15',
    ]);
    assert.deepEqual(
      nextDays([{ date: '2026-10-24', ...hours }], { every: 'year' }, '2026-01-01'),
      [{ date: '2027-10-24', ...hours }],
    );
  });
  it('is on the nth weekday of the month, or its last', () => {
    assert.deepEqual(next(['2026-11-14'], { every: 'month', nth: 2 }), ['2026-12-12']);
    assert.deepEqual(next(['2026-11-28'], { every: 'month', nth: -1 }), ['2026-12-26']);
    assert.deepEqual(next(['2027-01-30'], { every: 'month', nth: -1 }), ['2027-02-27']);
  });
  it('is on the 29th of February only where there is one', () =>
    assert.deepEqual(next(['2028-02-29'], { every: 'year' }), ['2032-02-29']));
  it('of what is long past is the first from today on', () =>
    assert.deepEqual(next(['2020-11-07'], { every: 'weeks', count: 2 }, '2026-11-27'), [
      '2026-11-28',
    ]));
  it('knows which weekday of the month a day is', () =>
    assert.deepEqual(
      ['2026-11-07', '2026-11-14', '2026-11-28', '2026-11-29'].map(nthOf),
      [1, 2, 4, -1],
    ));
  it('says its rule as other calendars do', () => {
    assert.equal(ruleOf({ every: 'weeks', count: 2 }, '2026-11-28'), 'FREQ=WEEKLY;INTERVAL=2');
    assert.equal(ruleOf({ every: 'month', nth: -1 }, '2026-11-28'), 'FREQ=MONTHLY;BYDAY=-1SA');
  });
});
