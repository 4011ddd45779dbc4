/** Hours and minutes as a quantity: thousandths of an hour. */
import { withPoint } from '../money/typed';

/**
 * Reads "1:20", "1 h 20 min", "1h20", "80 min", "1.5" or "2" as hours.
 * @returns Thousandths of an hour, rounded to the nearest; null when it is none of these.
 * @example hoursOf('1 h 20 min') // => 1333
 */
export function hoursOf(typed: string): number | null {
  const text = withPoint(typed.toLowerCase());
  const parts =
    /^(\d{1,3})\s*(?::|h|hr|hours?)\s*(?:(\d{1,2})\s*(?:m|min|minutes?)?)?$/.exec(text) ??
    /^()(\d{1,4})\s*(?:m|min|minutes?)$/.exec(text);
  if (parts !== null) {
    const [, hours = '', minutes = ''] = parts;
    const all = Number(hours === '' ? 0 : hours) * 60 + Number(minutes === '' ? 0 : minutes);
    if (hours !== '' && Number(minutes === '' ? 0 : minutes) > 59) return null;
    return Math.floor((all * 1000 + 30) / 60);
  }
  const decimal = /^(\d{1,3})(?:\.(\d{1,3}))?$/.exec(text);
  if (decimal === null) return null;
  const [, whole = '', rest = ''] = decimal;
  return Number(whole) * 1000 + Number(rest.padEnd(3, '0'));
}

/** @example hoursText(1333) // => '1 h 20 min' */
export function hoursText(quantity: number): string {
  const minutes = Math.round((quantity * 60) / 1000);
  const [hours, rest] = [Math.floor(minutes / 60), minutes % 60];
  if (hours === 0) return `${String(rest)} min`;
  return rest === 0 ? `${String(hours)} h` : `${String(hours)} h ${String(rest)} min`;
}
