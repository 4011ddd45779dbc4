/** A moment as the clock on the event's wall shows it. */
export interface LocalTime {
  /** ISO date. */
  readonly day: string;
  readonly hour: number;
  readonly minute: number;
}

const formats = new Map<string, Intl.DateTimeFormat>();

/**
 * @param at Milliseconds since 1970.
 * @param timeZone IANA name.
 * @throws {RangeError} If the time zone is not known.
 */
export function localTime(at: number, timeZone: string): LocalTime {
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
