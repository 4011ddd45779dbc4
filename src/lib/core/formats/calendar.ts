/** Events as other calendars have them: iCalendar (RFC 5545), out and in. */
import * as asIs from 'ical.js';
import type { EventDay, Row } from '../books/tables';
import { draft, type BodyOf } from '../daybook/kinds';
import type { Draft } from '../daybook/chain';
import { outsideId } from '../daybook/outside-id';
import { dayAfter, isOverMidnight } from '../event/event-days';
import { localTime, momentOf } from '../event/local-time';

/** The package has all of it in `default` for Node, and for bundlers as well. */
const ICAL = 'default' in asIs ? asIs.default : asIs;
type Time = InstanceType<typeof ICAL.Time>;
type Component = InstanceType<typeof ICAL.Component>;
type Event = Row<'events'>;

const DOMAIN = 'stall-till.invalid';
const uidOf = (event: string, day: number): string => `${event}-${String(day + 1)}@${DOMAIN}`;

/**
 * All events as a calendar, a VEVENT for each day, in UTC so that every reader has the same hours whatever zones it
 * knows. Lines are folded and end in CRLF.
 * @param at When it is written, milliseconds since 1970.
 */
export function calendarText(events: readonly Event[], name: string, at: number): string {
  const calendar = new ICAL.Component(['vcalendar', [], []]);
  calendar.addPropertyWithValue('version', '2.0');
  calendar.addPropertyWithValue('prodid', '-//Stall Till//Events//EN');
  calendar.addPropertyWithValue('x-wr-calname', name);
  for (const event of events)
    for (const [n, day] of event.days.entries()) calendar.addSubcomponent(dayOf(event, day, n, at));
  return `${calendar
    .toString()
    .replace(/\r?\n[ \t]/g, '')
    .split(/\r?\n/)
    .map(folded)
    .join('\r\n')}\r\n`;
}

/** A line of at most 75 octets, what is over going on behind a blank (RFC 5545 section 3.1). */
function folded(line: string): string {
  const parts: string[] = [];
  let [part, octets] = ['', 0];
  for (const letter of line) {
    const code = letter.codePointAt(0) ?? 0;
    const size = code < 0x80 ? 1 : code < 0x800 ? 2 : code < 0x10000 ? 3 : 4;
    if (octets + size > (parts.length === 0 ? 75 : 74)) {
      parts.push(part);
      [part, octets] = ['', 0];
    }
    part += letter;
    octets += size;
  }
  return [...parts, part].join('\r\n ');
}

function dayOf(event: Event, day: EventDay, n: number, at: number): Component {
  const { timeZone } = event;
  const closes = isOverMidnight(day) ? dayAfter(day.date) : day.date;
  const one = new ICAL.Component('vevent');
  one.addPropertyWithValue('uid', uidOf(event.id, n));
  one.addPropertyWithValue('dtstamp', utc(at));
  one.addPropertyWithValue('dtstart', utc(momentOf(day.date, day.opens, timeZone)));
  one.addPropertyWithValue('dtend', utc(momentOf(closes, day.closes, timeZone)));
  const many = event.days.length;
  one.addPropertyWithValue(
    'summary',
    many === 1 ? event.name : `${event.name}, day ${String(n + 1)} of ${String(many)}`,
  );
  const place = [event.place, event.pitch === '' ? '' : `pitch ${event.pitch}`];
  one.addPropertyWithValue('location', place.filter((part) => part !== '').join(', '));
  if (event.notes !== '') one.addPropertyWithValue('description', event.notes);
  return one;
}

const utc = (at: number): Time => ICAL.Time.fromJSDate(new Date(at), true);

/** One event of a file, and what taking it in will do. */
export interface PlannedEvent {
  /** Where it begins in the file, counting from 1. */
  readonly line: number;
  readonly name: string;
  readonly days: readonly EventDay[];
  readonly verdict: 'new' | 'changed' | 'same' | 'wrong';
  /** What is wrong with it, or what was taken otherwise than it says. */
  readonly why: string;
  readonly drafts: readonly Draft[];
}

export interface ReadCalendar {
  readonly text: string;
  readonly business: string;
  readonly timeZone: string;
  readonly events: readonly Event[];
  readonly newId: () => string;
  /** ISO date: of what comes round again, editions are made from then on. */
  readonly today: string;
}

/** Of an event that comes round again, so many editions are planned. */
const MOST_EDITIONS = 12;
const MOST_DAYS = 60;

/** @returns What each VEVENT will do; or why none of it can be read. */
export function readCalendar(
  command: ReadCalendar,
):
  | { readonly ok: true; readonly planned: readonly PlannedEvent[] }
  | { readonly ok: false; readonly why: string } {
  let calendars: readonly Component[];
  try {
    const parsed = ICAL.parse(command.text) as unknown[];
    const all = Array.isArray(parsed[0]) ? (parsed as unknown[][]) : [parsed];
    if (typeof all[0]?.[0] !== 'string') return { ok: false, why: 'This is no calendar file.' };
    calendars = all.map((each) => new ICAL.Component(each as never));
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    return { ok: false, why: `This is no calendar file: ${why}` };
  }
  const found = calendars.flatMap((each) => each.getAllSubcomponents('vevent'));
  if (found.length === 0) return { ok: false, why: 'There is no event in this file.' };
  const lines = linesOf(command.text);
  const seen = new Set<string>();
  return {
    ok: true,
    planned: found.flatMap((one, n) => plannedOf(one, lines[n] ?? 0, command, seen)),
  };
}

/** The lines on which events begin. */
const linesOf = (text: string): readonly number[] =>
  text.split(/\r?\n/).flatMap((line, at) => (/^BEGIN:VEVENT\s*$/i.test(line) ? [at + 1] : []));

function plannedOf(
  one: Component,
  line: number,
  command: ReadCalendar,
  seen: Set<string>,
): readonly PlannedEvent[] {
  const text = (name: string): string => {
    const value: unknown = one.getFirstPropertyValue(name);
    return typeof value === 'string' ? value.trim() : '';
  };
  const name = text('summary').slice(0, 80);
  const no = (why: string): PlannedEvent[] => [
    { line, name, days: [], verdict: 'wrong', why, drafts: [] },
  ];
  const uid = text('uid') || `${name} ${text('dtstart')}`;
  if (name === '') return no('it has no name (SUMMARY)');
  if (text('status').toUpperCase() === 'CANCELLED') return no('it is called off (STATUS)');
  if (uid.endsWith(`@${DOMAIN}`)) return no('it is from here, and is planned already');
  if (one.getFirstProperty('recurrence-id') !== null)
    return no('it changes one edition of another one (RECURRENCE-ID); plan that edition by hand');
  if (seen.has(uid)) return no('its id (UID) stood further up already');
  seen.add(uid);
  const zone = zoneOf(one, command.timeZone);
  const starts = one.getFirstPropertyValue('dtstart') as Time | null;
  if (starts === null || !(starts instanceof ICAL.Time)) return no('it has no beginning (DTSTART)');
  const length = lengthOf(one, starts);
  if (length === null) return no('it ends before it begins (DTEND)');
  if (Math.ceil(length / 86_400) > MOST_DAYS) return no('it is longer than sixty days');
  const all = beginningsOf(one, starts, command.today);
  const series = all.length > 1 ? outsideId(command.business, 'series', uid) : null;
  return all.map((begins, edition) => {
    const days = daysOf(begins, length, zone.name);
    const id = outsideId(
      command.business,
      'calendar',
      all.length > 1 ? `${uid} ${days[0]!.date}` : uid,
    );
    const body: BodyOf<'event.set'> = {
      id,
      name,
      short: name.slice(0, 24).trim(),
      organiser: '',
      place: text('location').slice(0, 120),
      pitch: '',
      series,
      days,
      timeZone: zone.name,
      stripe: '#1c684c',
      cloth: '#fffaf0',
      notes: text('description').slice(0, 500),
    };
    const known = command.events.find((event) => event.id === id);
    const verdict = known === undefined ? 'new' : isSame(known, body) ? 'same' : 'changed';
    // What somebody has set here since stays: the file says where and when, and no more.
    const kept =
      known === undefined
        ? body
        : {
            ...body,
            short: known.short,
            organiser: known.organiser,
            pitch: known.pitch,
            stripe: known.stripe,
            cloth: known.cloth,
            series: known.series,
          };
    return {
      ...{ line, name, days, verdict: verdict },
      why: [zone.why, edition === 0 && all.length > 1 ? 'it comes round again' : '']
        .filter((part) => part !== '')
        .join('; '),
      drafts: verdict === 'same' ? [] : [draft('event.set', command.newId(), id, kept)],
    };
  });
}

const isSame = (event: Event, body: BodyOf<'event.set'>): boolean =>
  event.name === body.name &&
  event.place === body.place &&
  event.notes === body.notes &&
  JSON.stringify(event.days) === JSON.stringify(body.days);

interface Zone {
  readonly name: string;
  readonly why: string;
}

/** The zone that its beginning names; that of the business where it names none, or one that is not known. */
function zoneOf(one: Component, own: string): Zone {
  const named = one.getFirstProperty('dtstart')?.getParameter('tzid');
  if (typeof named !== 'string' || named === '') return { name: own, why: '' };
  try {
    new Intl.DateTimeFormat('en', { timeZone: named });
    return /^[A-Za-z_]+(\/[A-Za-z0-9_+-]+){0,2}$/.test(named)
      ? { name: named, why: '' }
      : { name: own, why: `zone ${named} taken as ${own}` };
  } catch {
    return { name: own, why: `zone ${named} is not known, taken as ${own}` };
  }
}

/** Seconds from beginning to end; a day for one that only has a date, an hour for one that has no end. */
function lengthOf(one: Component, starts: Time): number | null {
  const ends = one.getFirstPropertyValue('dtend') as Time | null;
  const lasts = one.getFirstPropertyValue('duration') as { toSeconds(): number } | null;
  const seconds =
    ends instanceof ICAL.Time
      ? ends.subtractDate(starts).toSeconds()
      : (lasts?.toSeconds() ?? (starts.isDate ? 86_400 : 3600));
  return seconds <= 0 ? null : seconds;
}

/** When it begins: once, or each time that it comes round from today on. */
function beginningsOf(one: Component, starts: Time, today: string): readonly Time[] {
  if (one.getFirstProperty('rrule') === null) return [starts];
  const all = new ICAL.RecurExpansion({ component: one, dtstart: starts });
  const found: Time[] = [];
  // A rule may never end, or have begun long ago.
  for (let n = 0; n < 5000 && found.length < MOST_EDITIONS; n += 1) {
    const next = all.next() as Time | undefined;
    if (next === undefined) break;
    if (next.toString().slice(0, 10) >= today) found.push(next.clone());
  }
  return found.length === 0 ? [starts] : found;
}

/** The days between, with the hours on the wall; those of a whole day are usual ones. */
function daysOf(begins: Time, length: number, zone: string): EventDay[] {
  const wall = (time: Time): { day: string; time: string } => {
    const text = time.toString();
    if (!text.endsWith('Z')) return { day: text.slice(0, 10), time: text.slice(11, 16) };
    const { day, hour, minute } = localTime(Date.parse(text), zone);
    return { day, time: `${two(hour)}:${two(minute)}` };
  };
  const first = wall(begins);
  const days: EventDay[] = [];
  if (begins.isDate) {
    for (let n = 0, date = first.day; n < Math.ceil(length / 86_400); n += 1, date = dayAfter(date))
      days.push({ date, opens: '09:00', closes: '17:00' });
    return days;
  }
  const ends = begins.clone();
  ends.addDuration(ICAL.Duration.fromSeconds(length));
  const last = wall(ends);
  // Into the night is one day; longer than that, the hours are those of each day.
  if (length <= 86_400 && last.time !== first.time)
    return [{ date: first.day, opens: first.time, closes: last.time }];
  for (let date = first.day; date <= last.day && days.length < MOST_DAYS; date = dayAfter(date))
    days.push({ date, opens: first.time, closes: last.time === first.time ? '23:59' : last.time });
  return days;
}
const two = (n: number): string => String(n).padStart(2, '0');
