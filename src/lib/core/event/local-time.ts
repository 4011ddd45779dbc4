/**
 * When a clock on the wall shows a time. Where clocks are put back it shows it twice, and the first is meant; where
 * they are put on it never does, and the moment as long after midnight is meant.
 * @param day ISO date. @param time `09:30`. @returns Milliseconds since 1970.
 */
export function momentOf(day: string, time: string, timeZone: string): number {
  const wall = Date.parse(`${day}T${time}:00Z`);
  const shown = (at: number): number => {
    const { day: date, hour, minute } = localTime(at, timeZone);
    return Date.parse(`${date}T${pad(hour)}:${pad(minute)}:00Z`);
  };
  // What the zone is ahead of UTC, a day before and a day after: one of them is right.
  const [before, after] = [-1, 1].map((way) => {
    const near = wall + way * 86_400_000;
    return wall - (shown(near) - near);
  }) as [number, number];
  if (shown(before) === wall) return before;
  return shown(after) === wall ? after : before;
}
const pad = (n: number): string => String(n).padStart(2, '0');

/** A moment as the clock on the event's wall shows it. */
export interface LocalTime {
  /** ISO date. */
  readonly day: string;
  readonly hour: number;
  readonly minute: number;
}

const formats = new Map<string, Intl.DateTimeFormat>();

/** What was worked out lately, by zone and minute: everything about one sale asks for the same. */
let known = new Map<string, LocalTime>();
const MOST_KNOWN = 2000;
const MINUTE = 60_000;

/**
 * @param at Milliseconds since 1970.
 * @param timeZone IANA name.
 * @throws {RangeError} If the time zone is not known.
 */
export function localTime(at: number, timeZone: string): LocalTime {
  const key = `${timeZone} ${String(Math.floor(at / MINUTE))}`;
  const there = known.get(key);
  if (there !== undefined) return there;
  const time = workedOut(at, timeZone);
  if (known.size >= MOST_KNOWN) known = new Map();
  known.set(key, time);
  return time;
}

function workedOut(at: number, timeZone: string): LocalTime {
  let format = formats.get(timeZone);
  if (format === undefined) {
    format = new Intl.DateTimeFormat('en-GB', {
      timeZone,
      hourCycle: 'h23',
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
      hour: '2-digit',
      minute: '2-digit',
    });
    formats.set(timeZone, format);
  }
  const part: Record<string, string> = {};
  for (const { type, value } of format.formatToParts(at)) part[type] = value;
  const { year = '', month = '', day = '', hour = '', minute = '' } = part;
  return { day: `${year}-${month}-${day}`, hour: Number(hour), minute: Number(minute) };
}
