import type { EventEnd } from './event-ends';

/** Who was asked to look after a loose end, whatever it is about. */
export interface Hand {
  readonly looseEnd: string;
  readonly to: string | null;
  readonly note: string;
}

/** What is loose of one event, as the page of all of them shows it. */
export interface EventLooseEnds {
  readonly event: string;
  readonly name: string;
  /** Its last day, ISO date. */
  readonly day: string;
  readonly timeZone: string;
  readonly ends: readonly EventEnd[];
}
