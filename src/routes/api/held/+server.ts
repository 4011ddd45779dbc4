import { isStated } from '$lib/core/held/held-account';
import { heldMovesOf } from '$lib/server/books/held-moves';
import { answer, refused } from '$lib/server/http/answers';
import { tooMany } from '$lib/server/http/too-many';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

const MOST = 40;

/** What moved on accounts that somebody holds, of any age. */
export const GET: RequestHandler = async ({ url, locals }) => {
  const { books, limits } = services();
  const turned = await tooMany(limits, 'find', locals.device.device);
  if (turned !== null) return turned;
  const accounts = url.searchParams.getAll('account');
  if (accounts.length === 0 || accounts.length > MOST || !accounts.every(isStated))
    return refused(400, 'held/which');
  return answer(await heldMovesOf(books, locals.device.business, accounts));
};
