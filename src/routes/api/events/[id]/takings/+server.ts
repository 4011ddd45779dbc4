import { answer, refused } from '$lib/server/http/answers';
import { eventRows } from '$lib/server/books/event-rows';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ params, locals }) => {
  const { database, books } = services();
  const rows = await eventRows(database, books, locals.device.business, params.id);
  if (rows !== null) return answer(rows);
  return refused(404, 'event/unknown');
};
