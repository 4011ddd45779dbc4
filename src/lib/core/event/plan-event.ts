/** Planning an event, changing where and when it is, and the same again: commands. */
import type { EventDay, Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft, type BodyOf } from '../daybook/kinds';
import { outsideId } from '../daybook/outside-id';
import { dayAfter, isDate, isOverMidnight, isTime } from './event-days';
import { nextDays, type Recurrence } from './same-again';
import { isKnown } from './todays-event';

export interface TypedEvent {
  readonly name: string;
  /** What the awning says; the name, as far as it fits, where it is left empty. */
  readonly short: string;
  readonly organiser: string;
  readonly place: string;
  readonly pitch: string;
  readonly days: readonly EventDay[];
  readonly timeZone: string;
  readonly stripe: string;
  readonly cloth: string;
  readonly notes: string;
}

export type EventRefusal = { readonly field: string } & (
  | { readonly code: 'event/no-name' }
  | DaysFault
  | { readonly code: 'event/zone-wrong'; readonly typed: string }
  | { readonly code: 'event/planned' }
);
/** `day` counts from 1, as they stand in the form. */
type DaysFault =
  | { readonly code: 'event/no-days' }
  | { readonly code: 'event/day-wrong'; readonly day: number }
  | { readonly code: 'event/hours-wrong'; readonly day: number }
  | { readonly code: 'event/days-overlap'; readonly day: number };

export type EventOutcome =
  | { readonly ok: true; readonly id: string; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: EventRefusal };

const refuse = (refusal: EventRefusal): EventOutcome => ({ ok: false, refusal });

const SHORTEST_NAME = 24;
const MOST_DAYS = 60;

/**
 * Plans an event, or changes where and when it is; its days are put into their order. What else is set up of it
 * stays (`event.taxes`, `event.ways`).
 * @param id Null for a new one.
 */
export function setEvent(
  newId: () => string,
  id: string | null,
  typed: TypedEvent,
  events: readonly Row<'events'>[],
): EventOutcome {
  const name = typed.name.trim().slice(0, 80);
  if (name === '') return refuse({ code: 'event/no-name', field: 'name' });
  if (!isZone(typed.timeZone))
    return refuse({ code: 'event/zone-wrong', field: 'timeZone', typed: typed.timeZone });
  const fault = daysFault(typed.days);
  if (fault !== null) return refuse({ field: 'days', ...fault });
  const known = events.find((each) => each.id === id);
  const own = known?.id ?? newId();
  const body: BodyOf<'event.set'> = {
    id: own,
    name,
    short: (typed.short.trim() || name).slice(0, SHORTEST_NAME).trim(),
    organiser: typed.organiser.trim().slice(0, 80),
    place: typed.place.trim().slice(0, 120),
    pitch: typed.pitch.trim().slice(0, 40),
    series: known?.series ?? null,
    days: [...typed.days].sort((a, b) => (a.date < b.date ? -1 : 1)),
    timeZone: typed.timeZone,
    stripe: typed.stripe,
    cloth: typed.cloth,
    notes: typed.notes.slice(0, 500),
  };
  return { ok: true, id: own, drafts: [draft('event.set', newId(), own, body)] };
}

/** The first thing that is wrong with its days, or null. */
function daysFault(days: readonly EventDay[]): DaysFault | null {
  if (days.length === 0 || days.length > MOST_DAYS) return { code: 'event/no-days' };
  for (const [at, { date, opens, closes }] of days.entries()) {
    if (!isDate(date)) return { code: 'event/day-wrong', day: at + 1 };
    if (!isTime(opens) || !isTime(closes) || opens === closes)
      return { code: 'event/hours-wrong', day: at + 1 };
  }
  const ordered = days
    .map((day, at) => ({ ...day, at }))
    .sort((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : a.opens < b.opens ? -1 : 1));
  for (const [at, { date, opens, at: typedAt }] of ordered.slice(1).entries()) {
    const before = ordered[at]!;
    const isAgain = date === before.date;
    const isStillOpen =
      isOverMidnight(before) && date === dayAfter(before.date) && opens < before.closes;
    if (isAgain || isStillOpen) return { code: 'event/days-overlap', day: typedAt + 1 };
  }
  return null;
}

/**
 * What editions of one event share: the id of the first. That one itself is not written again for it, so that
 * nothing that somebody else is changing about it is lost.
 */
export const seriesOf = ({ id, series }: Pick<Row<'events'>, 'id' | 'series'>): string =>
  series ?? id;

export interface SameAgain {
  readonly newId: () => string;
  readonly business: string;
  readonly event: Row<'events'>;
  readonly recurrence: Recurrence;
  readonly events: readonly Row<'events'>[];
  readonly tables: readonly Row<'tables'>[];
  /** ISO date. */
  readonly today: string;
}

/**
 * The same again: the next edition, with its days, taxes, ways and the tables that are laid out for it. Its ids are
 * made from its series and day: planned in two windows, or on two devices that have not heard of each other, it is one.
 */
export function sameAgain(command: SameAgain): EventOutcome {
  const { newId, business, event, recurrence, events, tables, today } = command;
  const days = nextDays(event.days, recurrence, today);
  if (days === null) return refuse({ code: 'event/no-days', field: 'days' });
  if (isMade(event, days, events)) return refuse({ code: 'event/planned', field: 'choice' });
  const series = seriesOf(event);
  const made = outsideId(business, 'edition', `${series} ${days[0]?.date ?? ''}`);
  // One that was planned for that day, and has been put on another by now, stays.
  const id = events.some((each) => each.id === made) ? newId() : made;
  const { name, short, organiser, place, pitch, timeZone, stripe, cloth, notes } = event;
  const facts = { name, short, organiser, place, pitch, timeZone, stripe, cloth, notes };
  const drafts = [draft('event.set', newId(), id, { ...facts, id, series, days })];
  if (event.swaps.length > 0)
    drafts.push(draft('event.taxes', newId(), id, { event: id, swaps: event.swaps }));
  if (event.ways !== null)
    drafts.push(draft('event.ways', newId(), id, { event: id, ways: event.ways }));
  if (event.fee !== null) {
    const { fee, costs } = event;
    drafts.push(draft('event.costs', newId(), id, { event: id, fee, costs }));
  }
  if (event.single.length + event.over.length > 0) {
    const { single, over } = event;
    drafts.push(draft('event.prices', newId(), id, { event: id, single, over }));
  }
  if (event.duty.length + event.devices.length > 0) {
    const duty = event.duty.map((each) => ({
      ...each,
      date: movedDay(each.date, event.days, days),
    }));
    drafts.push(draft('event.people', newId(), id, { event: id, duty, devices: event.devices }));
  }
  if (event.things.length > 0)
    drafts.push(draft('event.bring', newId(), id, { event: id, things: event.things }));
  for (const { setStamp, ...table } of tables)
    if (setStamp !== '' && table.isActive && table.event === event.id)
      drafts.push(
        draft('table.set', newId(), null, {
          ...table,
          id: outsideId(business, 'table', `${id} ${table.id}`),
          event: id,
        }),
      );
  return { ok: true, id, drafts };
}

/** The day of the next edition that stands where this one stood in the last; as far behind the first day. */
function movedDay(date: string, from: readonly EventDay[], to: readonly EventDay[]): string {
  const [first, next] = [from[0]?.date ?? date, to[0]?.date ?? date];
  const by = Date.parse(`${date}T00:00:00Z`) - Date.parse(`${first}T00:00:00Z`);
  return new Date(Date.parse(`${next}T00:00:00Z`) + by).toISOString().slice(0, 10);
}

/** Editions of the same series on days that are there already: it has been made before. */
export const isMade = (
  event: Row<'events'>,
  days: readonly EventDay[],
  events: readonly Row<'events'>[],
): boolean =>
  events.some(
    (each) =>
      isKnown(each) && seriesOf(each) === seriesOf(event) && each.days[0]?.date === days[0]?.date,
  );

function isZone(timeZone: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone });
    return /^[A-Za-z_]+(\/[A-Za-z0-9_+-]+){0,2}$/.test(timeZone);
  } catch {
    return false;
  }
}
