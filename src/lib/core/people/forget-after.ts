/** When a device that has had no network forgets what it knows, as the vendor has set it. */

const DAY = 86_400_000;

/**
 * Milliseconds until it is time; nothing or less is now, null is never.
 * @param days 0 is never. @param heardAt When the server last answered. @param now Both in milliseconds
 * since 1970, by the device's clock: a clock that is set back does not hurry it, nor draw it out beyond what
 * was seen before.
 */
export function untilForgotten(
  days: number,
  heardAt: number | undefined,
  now: number,
): number | null {
  if (days === 0 || heardAt === undefined) return null;
  return heardAt + days * DAY - now;
}
