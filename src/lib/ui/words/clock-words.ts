/** What is said of a device whose clock is not the server's. */

/** Closer than this nobody has to know. */
const NEAR = 2 * 60_000;

/**
 * @param ahead Milliseconds that the server's clock is ahead of the device's.
 * @returns Null while the two are near enough.
 * @example clockWords(3 * 3_600_000) // => 'This device’s clock is 3 hours behind. …'
 */
export function clockWords(ahead: number): string | null {
  if (Math.abs(ahead) < NEAR) return null;
  const which = ahead > 0 ? 'behind' : 'ahead';
  return (
    `This device’s clock is ${howLong(Math.abs(ahead))} ${which}. Set it right before you change the ` +
    'set-up: of two changes the later one holds, and sales say when they were.'
  );
}

function howLong(milliseconds: number): string {
  const minutes = Math.round(milliseconds / 60_000);
  if (minutes < 120) return `${String(minutes)} minutes`;
  const hours = Math.round(minutes / 60);
  return hours < 48 ? `${String(hours)} hours` : `${String(Math.round(hours / 24))} days`;
}
