/** The days on which a standing charge is made, by a rule of RFC 5545 (section 3.3.10). ISO dates throughout. */
import type { RRule as Rule } from 'rrule';
import type { Unit } from '../daybook/kinds/charge';
import { daysAfter } from '../event/event-days';
import { RRule } from '../event/day-rules';

/** Every so many weeks, months or years from a first day on, until a last one or for ever. */
export interface Schedule {
  readonly unit: Unit;
  readonly every: number;
  readonly from: string;
  readonly until: string | null;
}

const dateOf = (day: string): Date => new Date(`${day}T00:00:00Z`);
const dayOf = (date: Date): string => date.toISOString().slice(0, 10);

/**
 * The days of a month that are meant by one: where a month is too short for it, its last one. Plain rules leave such
 * months out.
 */
const daysMeant = (day: number): number[] =>
  day <= 28 ? [day] : Array.from({ length: day - 27 }, (_, at) => 28 + at);

function ruleOf({ unit, every, from, until }: Schedule): Rule {
  const day = Number(from.slice(8));
  const month = Number(from.slice(5, 7));
  return new RRule({
    ...{ dtstart: dateOf(from), interval: every },
    ...(until === null ? {} : { until: dateOf(until) }),
    ...(unit === 'week'
      ? { freq: RRule.WEEKLY }
      : {
          freq: unit === 'month' ? RRule.MONTHLY : RRule.YEARLY,
          ...(unit === 'year' ? { bymonth: [month] } : {}),
          ...{ bymonthday: daysMeant(day), bysetpos: [-1] },
        }),
  });
}

/** Its days after one, up to another; both may be any day. @param after Empty for from the first one on. */
export function daysDue(schedule: Schedule, after: string, upTo: string): readonly string[] {
  const begin = after === '' || after < schedule.from ? daysAfter(schedule.from, -1) : after;
  if (upTo <= begin) return [];
  return ruleOf(schedule)
    .between(dateOf(daysAfter(begin, 1)), dateOf(upTo), true)
    .map(dayOf);
}

/** The next ones after a day; fewer where it ends before. */
export function nextDays(schedule: Schedule, after: string, many: number): readonly string[] {
  const rule = ruleOf(schedule);
  const days: string[] = [];
  let at = dateOf(after === '' || after < schedule.from ? daysAfter(schedule.from, -1) : after);
  while (days.length < many) {
    const next = rule.after(at);
    if (next === null) break;
    days.push(dayOf(next));
    at = next;
  }
  return days;
}
