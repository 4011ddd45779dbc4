import { settlingOf } from '$lib/core/settle/settling';
import { answer, refused } from '$lib/server/http/answers';
import { settlingRows } from '$lib/server/books/settling-rows';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** What an event comes to: should be and is of everything, and what is loose. */
export const GET: RequestHandler = async ({ params, locals }) => {
  const { database, books } = services();
  const rows = await settlingRows(database, books, locals.device.business, params.id, Date.now());
  return rows === null ? refused(404, 'event/unknown') : answer({ settling: settlingOf(rows) });
};
