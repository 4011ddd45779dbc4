/** Days and times as people say them. */

import { formatOf } from '../../core/event/day-words';

export { dayWords } from '../../core/event/day-words';

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
