/** What went wrong where nothing should: the browser's own words, or ours where it has none. */

import { isNoRoom } from '../../core/daybook/no-room';

/**
 * @example faultWords(new DOMException('', 'QuotaExceededError')) // => 'this device has no room left; free some'
 */
export function faultWords(error: unknown): string {
  if (!(error instanceof Error)) return String(error);
  if (isNoRoom(error)) return 'this device has no room left; free some';
  return error.message === '' ? `the browser says ${error.name}` : error.message;
}
