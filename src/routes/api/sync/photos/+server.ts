import { answer, refused } from '$lib/server/http/answers';
import { photosAfter } from '$lib/server/daybook/photos';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** Pictures of goods, after an item; they come behind all else a new device starts from. */
export const GET: RequestHandler = async ({ url, locals }) => {
  const after = url.searchParams.get('after') ?? '';
  if (/^[0-9a-f-]{0,36}$/.test(after))
    return answer(await photosAfter(services().database, locals.device.business, after));
  return refused(422, 'query/wrong', 'after', 'not the id of an item.');
};
