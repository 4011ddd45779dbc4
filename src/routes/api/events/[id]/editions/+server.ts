import { answer, refused } from '$lib/server/http/answers';
import { editionResults } from '$lib/server/books/edition-results';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** What the editions before an event left. */
export const GET: RequestHandler = async ({ params, locals }) => {
  const { database, books } = services();
  const { business } = locals.device;
  const editions = await editionResults(database, books, business, params.id, Date.now());
  return editions === null ? refused(404, 'event/unknown') : answer({ editions });
};
