import { bankNow } from '$lib/server/books/bank-rows';
import { answer } from '$lib/server/http/answers';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** The bank as it is now: lines that something is left to say of, what they may be, and the last that are done with. */
export const GET: RequestHandler = async ({ url, locals }) => {
  const { database, books } = services();
  const before = url.searchParams.get('before') ?? '';
  return answer(await bankNow(database, books, locals.owner.business, before, Date.now()));
};
