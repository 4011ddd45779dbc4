/** How the device stands with the server, in words. */

export interface Standing {
  readonly network: 'unknown' | 'there' | 'gone';
  readonly toSend: number;
  readonly pauses: ReadonlySet<string>;
}

/**
 * What the awning says: short enough for a phone, never only a colour.
 * @example syncWords({ network: 'gone', toSend: 12, pauses: new Set() }, false)
 *   // => 'No network · selling goes on · 12 to send'
 */
export function syncWords({ network, toSend, pauses }: Standing, isShort: boolean): string {
  const waiting = `${String(toSend)} to send`;
  if (pauses.has('shut out')) return isShort ? 'Shut out' : 'This device has been shut out';
  if (pauses.has('not enrolled'))
    return isShort ? 'Not enrolled' : 'The server does not know this device';
  if (pauses.has('copied'))
    return isShort ? 'A copy sells too' : 'A copy of this device is writing as well';
  if (pauses.has('refused'))
    return isShort ? `Refused · ${waiting}` : `The server refused an entry · ${waiting}`;
  if (network === 'gone') {
    if (isShort) return toSend === 0 ? 'No network' : `No network · ${waiting}`;
    return toSend === 0
      ? 'No network · selling goes on'
      : `No network · selling goes on · ${waiting}`;
  }
  if (toSend > 0) return waiting;
  return network === 'unknown' ? 'Looking for the network' : 'All sent';
}
