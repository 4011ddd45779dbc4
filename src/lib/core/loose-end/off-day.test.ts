import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { offDays } from './off-day';

const fair = {
  id: 'fair',
  name: 'Pellow Green',
  days: [{ date: '2026-11-22', opens: '', closes: '' }],
};
const hour = (day: string, at: number, sales = 1, takings = 450) => ({
  event: 'fair',
  day,
  hour: at,
  sales,
  takings,
});
const found = (...hours: ReturnType<typeof hour>[]) =>
  offDays([fair], hours, []).map(({ day, sales, takings }) => ({ day, sales, takings }));

describe('sales on a day that the event is not on', () => {
  it('are one loose end for a day, with what was taken', () => {
    assert.deepEqual(
      found(hour('2026-11-21', 10), hour('2026-11-21', 11, 3, 1200), hour('2026-11-22', 11)),
      [{ day: '2026-11-21', sales: 4, takings: 1650 }],
    );
  });

  it('are not those of a night that goes on past midnight', () => {
    assert.deepEqual(found(hour('2026-11-23', 0), hour('2026-11-23', 5)), []);
    assert.deepEqual(found(hour('2026-11-23', 6)), [{ day: '2026-11-23', sales: 1, takings: 450 }]);
    // The night before it began is not one of its nights.
    assert.equal(found(hour('2026-11-21', 3)).length, 1);
  });

  it('follow the first of March in a leap year and the turn of the year', () => {
    const at = (date: string, day: string) =>
      offDays([{ ...fair, days: [{ date, opens: '', closes: '' }] }], [hour(day, 1)], []).length;
    assert.deepEqual(
      [
        at('2028-02-29', '2028-03-01'),
        at('2026-12-31', '2027-01-01'),
        at('2026-02-28', '2026-03-01'),
      ],
      [0, 0, 0],
    );
  });

  it('are none once they were voided, settled, or of an event that is not known', () => {
    assert.deepEqual(found(hour('2026-11-21', 10, 0, 0)), []);
    const one = [hour('2026-11-21', 10)];
    const [loose] = offDays([fair], one, []);
    assert.equal(loose?.looseEnd, 'offday:fair-2026-11-21');
    assert.deepEqual(offDays([fair], one, [loose]), []);
    assert.deepEqual(offDays([], one, []), []);
  });
});
