/** Events that something may have happened at instead, since they are about the same day. */
import type { Row } from '../books/tables';
import { firstDay, lastDay } from './todays-event';

type Event = Pick<Row<'events'>, 'id' | 'days'>;

/** As many days before and after are looked at. */
const NEAR = 14;
const A_DAY = 86_400_000;

/**
 * Events about a day, the nearest first; without those that have no day yet.
 * @param day ISO date. @param except The event that is not meant.
 */
export function eventsAbout<E extends Event>(
  events: readonly E[],
  day: string,
  except: string | null,
): readonly E[] {
  const apart = new Map(events.map((event) => [event.id, daysApart(event, day)]));
  const of = ({ id }: E): number => apart.get(id) ?? Infinity;
  return events
    .filter((event) => event.id !== except && of(event) <= NEAR)
    .toSorted((a, b) => of(a) - of(b));
}

/** Nothing while it is on. */
function daysApart(event: Event, day: string): number {
  if (event.days.length === 0) return Infinity;
  const [first, last, at] = [firstDay(event), lastDay(event), day].map((date) => Date.parse(date));
  return Math.max(0, (first ?? 0) - (at ?? 0), (at ?? 0) - (last ?? 0)) / A_DAY;
}
