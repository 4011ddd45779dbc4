import { allLooseEnds } from '$lib/server/books/all-loose-ends';
import { answer } from '$lib/server/http/answers';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** What is loose of all events that are not settled, the latest event first. */
export const GET: RequestHandler = async ({ locals }) => {
  const { database, books } = services();
  return answer(await allLooseEnds(database, books, locals.device.business, Date.now()));
};
