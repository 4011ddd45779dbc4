/** Which event a device is at. */
import type { Row } from '../books/tables';
import { STAGES, type Stage } from '../daybook/kinds/event-stage';
import { localTime } from './local-time';

type Event = Row<'events'>;

export const stageOf = (event: Pick<Event, 'stage'>): Stage =>
  STAGES.find((stage) => stage === event.stage) ?? 'planned';

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

/**
 * The event that is on today; of several the one that the device was given, else the one furthest
 * into trading, then the first by id.
 * @param now Milliseconds since 1970; each event's own time zone says what day that is.
 */
export function todaysEvent(
  events: readonly Event[],
  now: number,
  given: string | null = null,
): Event | undefined {
  const on = events
    .filter((event) => isKnown(event) && isOn(event, localTime(now, event.timeZone).day))
    .sort((a, b) => openness[stageOf(a)] - openness[stageOf(b)] || (a.id < b.id ? -1 : 1));
  return on.find(({ id }) => id === given) ?? on[0];
}

const isOn = (event: Event, day: string): boolean => event.days.some(({ date }) => date === day);

/** Newest first; of the same day the first by id. */
export function byDate(events: readonly Event[]): Event[] {
  return events
    .filter(isKnown)
    .sort((a, b) =>
      firstDay(a) === firstDay(b) ? (a.id < b.id ? -1 : 1) : firstDay(a) < firstDay(b) ? 1 : -1,
    );
}
