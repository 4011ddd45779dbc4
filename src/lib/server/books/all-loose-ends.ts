/** The loose ends of every event that has been and is not settled, and letters that nobody took. */
import { Op } from 'sequelize';
import { lastDay } from '../../core/event/todays-event';
import { stageOf } from '../../core/event/stage';
import type { AllLooseEnds, EventLooseEnds } from '../../core/settle/event-loose-ends';
import { settlingOf } from '../../core/settle/settling';
import type { Database } from '../database/database';
import type { BookReader } from './read-books';
import { lettersGivenUp } from '../receipts/given-up';
import { settlingRows } from './settling-rows';

/** How far back events are looked at, and how many at a time; the latest first. */
const DAYS_BACK = 400;
const MOST_EVENTS = 12;
const DAY = 86_400_000;

/** @param now Milliseconds since 1970. */
export async function allLooseEnds(
  database: Database,
  books: BookReader,
  business: string,
  now: number,
): Promise<AllLooseEnds> {
  const [today, since] = [now, now - DAYS_BACK * DAY].map((at) =>
    new Date(at).toISOString().slice(0, 10),
  );
  const open = (await books.rows(business, 'events', { setStamp: { [Op.ne]: '' } }))
    .filter((event) => event.days.length > 0 && stageOf(event) !== 'settled')
    // Of a market that is still on, it is too early to say.
    .filter((event) => lastDay(event) < today! || stageOf(event) === 'counted')
    .filter((event) => lastDay(event) >= since!)
    .sort((a, b) => (lastDay(a) < lastDay(b) ? 1 : -1));
  const events: EventLooseEnds[] = [];
  for (const { id, name } of open.slice(0, MOST_EVENTS)) {
    const rows = await settlingRows(database, books, business, id, now);
    if (rows === null) continue;
    const { ends } = settlingOf(rows);
    // Where nothing happened there is nothing to settle.
    if (rows.totals === undefined && ends.length === 0) continue;
    events.push({
      event: id,
      name,
      day: lastDay(rows.event),
      timeZone: rows.event.timeZone,
      ends,
    });
  }
  const hands = await books.rows(business, 'looseEndHands', { to: { [Op.ne]: null } });
  const letters = await lettersGivenUp(database, business);
  return { events, more: Math.max(0, open.length - MOST_EVENTS), hands, letters };
}
