/** What went wrong where nothing should: the browser's own words, or ours where it has none. */

import { isNoRoom } from '../../core/daybook/no-room';
import { isPartLost } from '../../core/daybook/part-lost';

/** static/lost-parts.js says so as well, of what comes before any of this. */
export const PART_LOST = 'A part of the till was lost on its way. It is asked for again by itself.';

/**
 * @example faultWords(new DOMException('', 'QuotaExceededError')) // => 'this device has no room left; free some'
 */
export function faultWords(error: unknown): string {
  if (!(error instanceof Error)) return String(error);
  if (isNoRoom(error)) return 'this device has no room left; free some';
  if (isPartLost(error)) return 'a part of the till did not come over the network; try again';
  return error.message === '' ? `the browser says ${error.name}` : error.message;
}

/** Why this browser cannot be a till just now. */
export const noTillWords = (error: unknown): string =>
  isPartLost(error)
    ? `Not yet: ${faultWords(error)}.`
    : `This browser does not keep data: ${faultWords(error)}.`;
