import { findSales } from '$lib/server/books/find-sales';
import { answer, refused } from '$lib/server/http/answers';
import { tooMany } from '$lib/server/http/too-many';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

const LONGEST = 100;

/** Sales of any age that fit what was typed. */
export const GET: RequestHandler = async ({ url, locals }) => {
  const typed = url.searchParams.get('find') ?? '';
  if (typed.trim() === '' || typed.length > LONGEST) return refused(422, 'find/typed', LONGEST);
  const { database, books, limits } = services();
  const turned = await tooMany(limits, 'find', locals.device.device);
  if (turned !== null) return turned;
  return answer({ found: await findSales(database, books, locals.device.business, typed) });
};
