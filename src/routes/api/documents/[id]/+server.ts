import { olderDocument } from '$lib/server/books/find-documents';
import { answer, refused } from '$lib/server/http/answers';
import { tooMany } from '$lib/server/http/too-many';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** Cash that was moved, or a refund without a sale, of any age. */
export const GET: RequestHandler = async ({ params, locals }) => {
  const { books, limits } = services();
  const turned = await tooMany(limits, 'find', locals.device.device);
  if (turned !== null) return turned;
  const found = await olderDocument(books, locals.device.business, params.id);
  return found === null ? refused(404, 'document/unknown') : answer(found);
};
