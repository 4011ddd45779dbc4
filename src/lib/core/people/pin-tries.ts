/**
 * The growing delay after wrong PINs. It is counted person by person, so that knowing one PIN does
 * not help to guess another. Times are milliseconds since 1970 by the device's clock.
 */
export interface Tries {
  /** Wrong ones in a row. */
  readonly wrong: number;
  /** When the last one was made, and until when no other is looked at. */
  readonly at: number;
  readonly until: number;
}

export const NO_TRIES: Tries = { wrong: 0, at: 0, until: 0 };
export const FREE_TRIES = 3;
export const FIRST_DELAY = 5_000;
export const LONGEST_DELAY = 15 * 60_000;

/** One more wrong PIN: 5 s after the third, twice as long after each further one, up to 15 min. */
export function afterWrong({ wrong }: Tries, now: number): Tries {
  const beyond = wrong + 1 - FREE_TRIES;
  const delay = beyond < 0 ? 0 : Math.min(LONGEST_DELAY, FIRST_DELAY * 2 ** Math.min(beyond, 20));
  return { wrong: wrong + 1, at: now, until: now + delay };
}

/**
 * Milliseconds that are still to be waited; 0 when a PIN may be tried. A clock that was set back
 * neither shortens the wait nor makes it longer than it was.
 */
export function stillToWait({ at, until }: Tries, now: number): number {
  return Math.max(0, Math.min(until - now, until - at));
}
