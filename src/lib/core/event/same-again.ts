/** The next edition of an event: when it is, by a rule of RFC 5545 (section 3.3.10). */
import type { Options } from 'rrule';
import type { EventDay } from '../books/tables';
import { RRule, Weekday } from './day-rules';

/** How often it is held. */
export type Recurrence =
  | { readonly every: 'weeks'; readonly count: number }
  /** The same weekday of the month: the second Saturday, or the last one. */
  | { readonly every: 'month'; readonly nth: 1 | 2 | 3 | 4 | -1 }
  | { readonly every: 'year' };

const DAY = 86_400_000;
const dateOf = (day: string): Date => new Date(`${day}T00:00:00Z`);
const dayOf = (date: Date): string => date.toISOString().slice(0, 10);

/** As other calendars have it. @example ruleOf({ every: 'weeks', count: 2 }, '2026-11-28') // => 'FREQ=WEEKLY;INTERVAL=2' */
export const ruleOf = (recurrence: Recurrence, first: string): string =>
  RRule.optionsToString(optionsOf(recurrence, first)).replace(/^RRULE:/, '');

function optionsOf(recurrence: Recurrence, first: string): Partial<Options> {
  // Monday is 0 in these rules.
  const weekday = (dateOf(first).getUTCDay() + 6) % 7;
  switch (recurrence.every) {
    case 'weeks':
      return { freq: RRule.WEEKLY, interval: recurrence.count };
    case 'month':
      return {
        freq: RRule.MONTHLY,
        byweekday: [new Weekday(weekday, recurrence.nth)],
      };
    case 'year':
      return { freq: RRule.YEARLY };
  }
}

/** Which of its weekdays in the month a day is; the fifth counts as the last. */
export function nthOf(day: string): 1 | 2 | 3 | 4 | -1 {
  const nth = Math.ceil(Number(day.slice(8)) / 7);
  return nth === 5 ? -1 : (nth as 1 | 2 | 3 | 4);
}

/**
 * The days of the edition after this one: the first by the rule, the others as far behind it as they were, the
 * hours on the wall the same.
 * @param notBefore ISO date: an event that is long past is held next from then on, not years ago.
 * @returns Null where the rule gives no further day.
 */
export function nextDays(
  days: readonly EventDay[],
  recurrence: Recurrence,
  notBefore: string,
): readonly EventDay[] | null {
  const [first] = days;
  if (first === undefined) return null;
  const begin = dateOf(first.date);
  const rule = new RRule({ ...optionsOf(recurrence, first.date), dtstart: begin });
  const after = new Date(Math.max(begin.getTime(), dateOf(notBefore).getTime() - DAY));
  const next = rule.after(after);
  if (next === null) return null;
  const by = next.getTime() - begin.getTime();
  return days.map((day) => ({ ...day, date: dayOf(new Date(dateOf(day.date).getTime() + by)) }));
}
