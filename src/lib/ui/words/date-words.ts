/** Days and times as people say them. */

/** Made once for each way of writing: making one takes longer than a hundred uses of it. */
const formats = new Map<string, Intl.DateTimeFormat>();
function formatOf(locale: string, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const key = `${locale} ${JSON.stringify(options)}`;
  let format = formats.get(key);
  if (format === undefined) {
    format = new Intl.DateTimeFormat(locale, options);
    formats.set(key, format);
  }
  return format;
}

/** @example dayWords('2026-11-22', 'en-GB') // => 'Sunday 22 November' */
export const dayWords = (day: string, locale: string): string =>
  formatOf(locale, {
    weekday: 'long',
    day: 'numeric',
    month: 'long',
    timeZone: 'UTC',
  }).format(Date.parse(`${day}T00:00:00Z`));

/** With the year, for lists of past days. */
export const shortDayWords = (day: string, locale: string): string =>
  formatOf(locale, {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    timeZone: 'UTC',
  }).format(Date.parse(`${day}T00:00:00Z`));

/** A moment's time of day. @param at ISO 8601. */
export const timeWords = (at: string, locale: string, timeZone: string): string =>
  formatOf(locale, { hour: '2-digit', minute: '2-digit', timeZone }).format(Date.parse(at));

/** @example weekdayName('2026-11-22', 'en-GB') // => 'Sunday' */
export const weekdayName = (day: string, locale: string): string =>
  formatOf(locale, { weekday: 'long', timeZone: 'UTC' }).format(Date.parse(`${day}T00:00:00Z`));

/** The twelve months, short. */
export const monthNames = (locale: string): readonly string[] => {
  const format = formatOf(locale, { month: 'short', timeZone: 'UTC' });
  return Array.from({ length: 12 }, (_, month) => format.format(Date.UTC(2026, month, 1)));
};
