import { findSales } from '$lib/server/books/find-sales';
import { findDocuments } from '$lib/server/books/find-documents';
import { answer, refused } from '$lib/server/http/answers';
import { tooMany } from '$lib/server/http/too-many';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

const LONGEST = 100;

/** Sales of any age that fit what was typed, and what else devices let go of. */
export const GET: RequestHandler = async ({ url, locals }) => {
  const typed = url.searchParams.get('find') ?? '';
  if (typed.trim() === '' || typed.length > LONGEST) return refused(422, 'find/typed', LONGEST);
  const { database, books, limits } = services();
  const turned = await tooMany(limits, 'find', locals.device.device);
  if (turned !== null) return turned;
  const { business } = locals.device;
  return answer({
    found: await findSales(database, books, business, typed),
    documents: await findDocuments(database, books, business, typed),
  });
};
