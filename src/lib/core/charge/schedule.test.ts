import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { daysAfter } from '../event/event-days';
import { UNITS } from '../daybook/kinds/charge';
import { daysDue, nextDays, type Schedule } from './schedule';

const monthly = (from: string, more: Partial<Schedule> = {}): Schedule => ({
  ...{ unit: 'month', every: 1, from, until: null },
  ...more,
});

const anyDay = fc.integer({ min: 0, max: 3000 }).map((days) => daysAfter('2024-01-01', days));
const anySchedule = fc.record({
  unit: fc.constantFrom(...UNITS),
  every: fc.integer({ min: 1, max: 12 }),
  from: anyDay,
  until: fc.constant(null),
});

describe('the schedule of a standing charge', () => {
  it('has the last day of a month that is too short for its own', () => {
    assert.deepEqual(daysDue(monthly('2026-10-31'), '', '2027-04-30'), [
      ...['2026-10-31', '2026-11-30', '2026-12-31', '2027-01-31', '2027-02-28', '2027-03-31'],
      '2027-04-30',
    ]);
    assert.deepEqual(daysDue(monthly('2027-12-30'), '', '2028-03-01'), [
      ...['2027-12-30', '2028-01-30', '2028-02-29'],
    ]);
  });

  it('has the last day of February where a year has no 29th', () => {
    const yearly = monthly('2028-02-29', { unit: 'year' });
    assert.deepEqual(nextDays(yearly, '', 5), [
      ...['2028-02-29', '2029-02-28', '2030-02-28', '2031-02-28', '2032-02-29'],
    ]);
  });

  it('goes by weeks, and by months that are left out', () => {
    assert.deepEqual(nextDays(monthly('2026-11-27', { unit: 'week', every: 2 }), '2026-11-27', 2), [
      ...['2026-12-11', '2026-12-25'],
    ]);
    assert.deepEqual(nextDays(monthly('2026-01-15', { every: 3 }), '2026-02-01', 2), [
      ...['2026-04-15', '2026-07-15'],
    ]);
  });

  it('ends on its last day, that day with it', () => {
    const ends = monthly('2026-11-01', { until: '2027-01-01' });
    assert.deepEqual(nextDays(ends, '2026-11-15', 5), ['2026-12-01', '2027-01-01']);
    assert.deepEqual(daysDue(ends, '2027-01-01', '2030-01-01'), []);
  });

  it('gives each day once, however it is asked', () => {
    fc.assert(
      fc.property(anySchedule, anyDay, fc.nat({ max: 900 }), (schedule, at, span) => {
        const end = daysAfter(at, span);
        const whole = daysDue(schedule, '', end);
        const inTwo = [
          ...daysDue(schedule, '', at < end ? at : end),
          ...daysDue(schedule, at, end),
        ];
        assert.deepEqual(inTwo, whole);
        assert.deepEqual(nextDays(schedule, '', whole.length), whole);
        assert.deepEqual([...new Set(whole)].sort(), whole);
      }),
      { numRuns: 60 },
    );
  });

  it('leaves out no month and no year', () => {
    fc.assert(
      fc.property(anyDay, (from) => {
        const months = nextDays(monthly(from), '', 30).map((day) => day.slice(0, 7));
        const first = Number(from.slice(0, 4)) * 12 + Number(from.slice(5, 7)) - 1;
        months.forEach((month, n) => {
          const [year = 0, of = 0] = month.split('-').map(Number);
          assert.equal(year * 12 + of - 1, first + n);
        });
        const years = nextDays(monthly(from, { unit: 'year' }), '', 6);
        years.forEach((day, n) =>
          assert.equal(Number(day.slice(0, 4)), Number(from.slice(0, 4)) + n),
        );
      }),
      { numRuns: 40 },
    );
  });
});
