import { saleDocument } from '$lib/server/books/find-sales';
import { answer, refused } from '$lib/server/http/answers';
import { tooMany } from '$lib/server/http/too-many';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** A sale of any age, with all that belongs to it. */
export const GET: RequestHandler = async ({ params, locals }) => {
  const { database, books, limits } = services();
  const turned = await tooMany(limits, 'find', locals.device.device);
  if (turned !== null) return turned;
  const found = await saleDocument(database, books, locals.device.business, params.id);
  if (found !== null) return answer(found);
  return refused(404, 'sale/unknown');
};
