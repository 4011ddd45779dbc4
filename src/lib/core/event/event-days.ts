/** The days of an event, by the clock on its wall. */
import type { EventDay } from '../books/tables';
import type { LocalTime } from './local-time';

const DAY = 86_400_000;

/** Whether it is a day that there is, as an ISO date. */
export function isDate(text: string): boolean {
  const at = /^\d{4}-\d{2}-\d{2}$/.test(text) ? Date.parse(`${text}T00:00:00Z`) : Number.NaN;
  return !Number.isNaN(at) && new Date(at).toISOString().startsWith(text);
}

/** So many days later, or earlier below nothing. @param day ISO date. */
export const daysAfter = (day: string, days: number): string =>
  new Date(Date.parse(`${day}T00:00:00Z`) + days * DAY).toISOString().slice(0, 10);

export const dayAfter = (day: string): string => daysAfter(day, 1);

/** Whether it goes on after midnight: it closes at an hour before that at which it opens. */
export const isOverMidnight = ({ opens, closes }: EventDay): boolean => closes < opens;

/** Whether an event is on at a time: on one of its days, or in the night that one of them goes on into. */
export const isOnAt = (days: readonly EventDay[], { day, hour, minute }: LocalTime): boolean =>
  days.some((each) => {
    if (each.date === day) return true;
    const time = `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`;
    return isOverMidnight(each) && dayAfter(each.date) === day && time < each.closes;
  });

/** Whether it is an hour and a minute on the wall, such as 09:30. */
export const isTime = (text: string): boolean => /^([01]\d|2[0-3]):[0-5]\d$/.test(text);
