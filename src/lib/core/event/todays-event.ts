/** Which event a device is at. */
import type { Row } from '../books/tables';
import type { Stage } from '../daybook/kinds/event-stage';
import { isOnAt } from './event-days';
import { localTime } from './local-time';
import { stageOf } from './stage';

type Event = Row<'events'>;

/** Whether anything has been said of the record, not only of its stage. */
export const isKnown = (row: { readonly setStamp: string }): boolean => row.setStamp !== '';

export const firstDay = (event: Pick<Event, 'days'>): string => event.days[0]?.date ?? '';
export const lastDay = (event: Pick<Event, 'days'>): string => event.days.at(-1)?.date ?? '';

const openness: Readonly<Record<Stage, number>> = {
  trading: 0,
  counted: 1,
  packed: 2,
  planned: 3,
  settled: 4,
};

/** An event that somebody chose by hand, and the day of the device's clock for which that holds. */
export interface ChosenEvent {
  readonly id: string;
  readonly day: string;
}

/**
 * The event that is on today; of several the one that the device was given, else the one furthest
 * into trading, then the first by id. What was chosen by hand comes before all: a clock can be a day off.
 * @param now Milliseconds since 1970; each event's own time zone says what day that is.
 */
export function todaysEvent(
  events: readonly Event[],
  now: number,
  given: string | null = null,
  chosen: ChosenEvent | null = null,
): Event | undefined {
  const byHand = events.find(
    (event) =>
      isKnown(event) &&
      event.id === chosen?.id &&
      chosen.day === localTime(now, event.timeZone).day &&
      stageOf(event) !== 'settled',
  );
  if (byHand !== undefined) return byHand;
  const on = events
    .filter((event) => isKnown(event) && isOnAt(event.days, localTime(now, event.timeZone)))
    .sort((a, b) => openness[stageOf(a)] - openness[stageOf(b)] || (a.id < b.id ? -1 : 1));
  return on.find(({ id }) => id === given) ?? on[0];
}

const DAY = 86_400_000;

/** Events that somebody may be at though the calendar has none today: not settled, within three days. */
export function eventsNear(events: readonly Event[], now: number): Event[] {
  return events
    .filter((event) => isKnown(event) && stageOf(event) !== 'settled')
    .filter(({ days, timeZone }) => {
      const from = localTime(now - 3 * DAY, timeZone).day;
      const to = localTime(now + 3 * DAY, timeZone).day;
      return days.some(({ date }) => date >= from && date <= to);
    })
    .sort((a, b) => (firstDay(a) < firstDay(b) ? -1 : firstDay(a) > firstDay(b) ? 1 : 0));
}

/** Newest first; of the same day the first by id. */
export function byDate(events: readonly Event[]): Event[] {
  return events
    .filter(isKnown)
    .sort((a, b) =>
      firstDay(a) === firstDay(b) ? (a.id < b.id ? -1 : 1) : firstDay(a) < firstDay(b) ? 1 : -1,
    );
}
