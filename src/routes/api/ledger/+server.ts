import { z } from 'zod';
import { LEDGER_BY } from '$lib/core/ledger/ledger-by';
import { eventLedger } from '$lib/server/books/event-ledger';
import { answer, refused } from '$lib/server/http/answers';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

const query = z.object({
  event: z.uuid(),
  by: z.enum(LEDGER_BY),
  only: z.enum(['new', 'all']),
});

/** The double entries of an event; all of them, or what has come since they were handed over. */
export const GET: RequestHandler = async ({ url, locals }) => {
  const asked = query.safeParse(Object.fromEntries(url.searchParams));
  if (!asked.success)
    return refused(422, 'query/wrong', 'event, by, only', 'Ask as event=…&by=day&only=all.');
  const { event, by, only } = asked.data;
  const { database, books } = services();
  const { business } = locals.device;
  const found = await eventLedger(database, books, business, event, {
    by,
    isNewOnly: only === 'new',
  });
  return found === null ? refused(404, 'event/unknown') : answer(found);
};
