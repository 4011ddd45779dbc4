/** Sales at an event on a day that is none of its days: a clock was wrong, or the event’s days are. */
import type { Row } from '../books/tables';
import { daysAfter } from '../event/event-days';

type Event = Pick<Row<'events'>, 'id' | 'name' | 'days'>;
type Hour = Pick<Row<'eventHours'>, 'event' | 'day' | 'hour' | 'sales' | 'takings'>;

export interface OffDay {
  readonly looseEnd: string;
  readonly event: Event;
  /** As the sales have it, `2026-11-21`. */
  readonly day: string;
  readonly sales: number;
  /** Minor units, tax included where prices include it. */
  readonly takings: number;
}

/** An event that began the day before may go on until this hour. */
const NIGHT_ENDS = 6;

/** One for each event and day, whatever was sold on it; the latest day first. */
export function offDays(
  events: readonly Event[],
  hours: readonly Hour[],
  settlements: readonly Pick<Row<'settlements'>, 'looseEnd'>[],
): readonly OffDay[] {
  const settled = new Set(settlements.map(({ looseEnd }) => looseEnd));
  const byId = new Map(events.map((event) => [event.id, event]));
  const found = new Map<string, OffDay>();
  for (const { event: id, day, hour, sales, takings } of hours) {
    const event = byId.get(id);
    const looseEnd = `offday:${id}-${day}`;
    if (event === undefined || settled.has(looseEnd) || isOn(event, day, hour)) continue;
    const before = found.get(looseEnd) ?? { looseEnd, event, day, sales: 0, takings: 0 };
    found.set(looseEnd, {
      ...before,
      sales: before.sales + sales,
      takings: before.takings + takings,
    });
  }
  return [...found.values()]
    .filter(({ sales }) => sales > 0)
    .sort((a, b) => (a.day < b.day ? 1 : a.day > b.day ? -1 : a.event.id < b.event.id ? -1 : 1));
}

function isOn({ days }: Event, day: string, hour: number): boolean {
  const dates = new Set(days.map(({ date }) => date));
  return dates.has(day) || (hour < NIGHT_ENDS && dates.has(daysAfter(day, -1)));
}
