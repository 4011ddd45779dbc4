/** A year of events: where each hangs on the string, and what it still needs. */
import type { Row } from '../books/tables';
import { stageOf } from './stage';
import { byDate, firstDay, lastDay } from './todays-event';

type Event = Row<'events'>;

export interface Pennant {
  readonly event: Event;
  /** How far through the year its first day is, from 0 to 1. */
  readonly at: number;
  readonly is: 'done' | 'now' | 'to come';
}

/** What comes next for an event, in the order in which it happens. */
export type Need = 'pack' | 'open' | 'sell' | 'settle' | 'nothing';

export function needOf(event: Event): Need {
  switch (stageOf(event)) {
    case 'planned':
      return 'pack';
    case 'packed':
      return 'open';
    case 'trading':
      return 'sell';
    case 'counted':
      return 'settle';
    case 'settled':
      return 'nothing';
  }
}

const DAY = 86_400_000;

/** Pennants of a year, the earliest first. @param today ISO date. */
export function seasonOf(events: readonly Event[], year: number, today: string): Pennant[] {
  const begins = Date.UTC(year, 0, 1);
  const long = (Date.UTC(year + 1, 0, 1) - begins) / DAY;
  return byDate(events)
    .filter((event) => Number(firstDay(event).slice(0, 4)) === year)
    .reverse()
    .map((event) => {
      const day = (Date.parse(`${firstDay(event)}T00:00:00Z`) - begins) / DAY;
      const isNow = firstDay(event) <= today && lastDay(event) >= today;
      return {
        event,
        at: day / long,
        is: isNow ? 'now' : lastDay(event) < today ? 'done' : 'to come',
      };
    });
}

/** The years that have events, and this one, in their order. */
export const yearsOf = (events: readonly Event[], today: string): readonly number[] =>
  [...new Set([...byDate(events).map(firstDay), today].map((day) => Number(day.slice(0, 4))))].sort(
    (a, b) => a - b,
  );

/** What is not behind us yet, or not settled: the nearest first. @param today ISO date. */
export const comingUp = (events: readonly Event[], today: string): Event[] =>
  byDate(events)
    .reverse()
    .filter((event) => lastDay(event) >= today || needOf(event) === 'sell');

/** What is behind us, the latest first. @param today ISO date. */
export const behindUs = (events: readonly Event[], today: string): Event[] =>
  byDate(events).filter((event) => lastDay(event) < today);
