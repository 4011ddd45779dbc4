/**
 * The hybrid logical clock: stamps that follow the devices' clocks where those are right, and
 * that never run backwards where they are not (Kulkarni et al., "Logical Physical Clocks", 2014).
 *
 * A stamp is text that sorts as the entries do: 12 hex digits of milliseconds, 4 of a counter,
 * and the device, so that no two devices ever make the same one.
 */
export interface Clock {
  /** Milliseconds since 1970, never going back. */
  readonly millis: number;
  readonly counter: number;
}

export type Stamp = string;

export const CLOCK_AT_REST: Clock = { millis: 0, counter: 0 };
export const STAMP_PATTERN = /^[0-9a-f]{12}-[0-9a-f]{4}-[0-9a-f-]{36}$/;

const MOST_IN_A_MILLISECOND = 0xffff;
/** A stamp further ahead of the server's clock than this comes from a wrong clock, and is held to arrival. */
export const FURTHEST_AHEAD = 10 * 60 * 1000;

/** The next time of this clock. @param now The device's own clock, in milliseconds since 1970. */
export function tick(clock: Clock, now: number): Clock {
  if (now > clock.millis) return { millis: now, counter: 0 };
  if (clock.counter < MOST_IN_A_MILLISECOND) return { ...clock, counter: clock.counter + 1 };
  return { millis: clock.millis + 1, counter: 0 };
}

/** Moves the clock on past a stamp that was received. */
export function follow(clock: Clock, stamp: Stamp): Clock {
  const seen = clockOf(stamp);
  const isAhead =
    seen.millis > clock.millis || (seen.millis === clock.millis && seen.counter > clock.counter);
  return isAhead ? seen : clock;
}

export function stampOf({ millis, counter }: Clock, device: string): Stamp {
  return `${millis.toString(16).padStart(12, '0')}-${counter.toString(16).padStart(4, '0')}-${device}`;
}

/** The time part of a stamp. */
export function clockOf(stamp: Stamp): Clock {
  return {
    millis: Number.parseInt(stamp.slice(0, 12), 16),
    counter: Number.parseInt(stamp.slice(13, 17), 16),
  };
}
