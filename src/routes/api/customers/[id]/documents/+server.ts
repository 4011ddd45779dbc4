import { customerDocuments } from '$lib/server/books/customer-documents';
import { answer } from '$lib/server/http/answers';
import { tooMany } from '$lib/server/http/too-many';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** What belongs to a customer, of any age; nothing of one that the server does not know, or that was forgotten. */
export const GET: RequestHandler = async ({ params, locals }) => {
  const { books, limits } = services();
  const turned = await tooMany(limits, 'find', locals.device.device);
  if (turned !== null) return turned;
  return answer(await customerDocuments(books, locals.device.business, params.id));
};
