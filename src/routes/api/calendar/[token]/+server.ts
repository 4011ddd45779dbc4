import { calendarText } from '$lib/core/formats/calendar';
import { byDate } from '$lib/core/event/todays-event';
import { nothingHere } from '$lib/server/http/answers';
import { tooMany } from '$lib/server/http/too-many';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** All events of the business whose address this is, for calendars that follow it. */
export const GET: RequestHandler = async ({ params, getClientAddress }) => {
  const { books, calendars, limits } = services();
  const token = /^([0-9a-f]{64})(?:\.ics)?$/.exec(params.token)?.[1];
  const business = token === undefined ? null : await calendars.businessOf(token);
  if (business === null)
    return (await tooMany(limits, 'calendar', getClientAddress())) ?? nothingHere();
  const [known] = await books.rows(business, 'businesses');
  const events = byDate(await books.rows(business, 'events')).toReversed();
  return new Response(calendarText(events, known?.name ?? '', Date.now()), {
    headers: {
      'content-type': 'text/calendar; charset=utf-8',
      'content-disposition': 'inline; filename="events.ics"',
      'cache-control': 'private, max-age=900',
    },
  });
};
