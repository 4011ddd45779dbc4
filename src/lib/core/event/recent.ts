/** Which events a device keeps the documents of; those of earlier ones stay on the server. */
import type { Row } from '../books/tables';
import { lastDay } from './todays-event';

/** Days after its last one. */
export const RECENT_DAYS = 14;

/** The first day that still counts as recent, as an ISO date. @param now Milliseconds since 1970. */
export const recentSince = (now: number): string =>
  new Date(now - RECENT_DAYS * 86_400_000).toISOString().slice(0, 10);

/** @param since As `recentSince` gives it. */
export const isRecent = (event: Pick<Row<'events'>, 'days'>, since: string): boolean =>
  lastDay(event) >= since;
