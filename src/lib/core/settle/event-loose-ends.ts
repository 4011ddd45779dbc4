import type { EventEnd } from './event-ends';
import type { SettlingRows } from './rows';

/** What is loose of one event, as the page of all of them shows it. */
export interface EventLooseEnds {
  readonly event: string;
  readonly name: string;
  /** Its last day, ISO date. */
  readonly day: string;
  readonly timeZone: string;
  readonly ends: readonly EventEnd[];
  readonly hands: SettlingRows['hands'];
}
