import { answer, refused } from '$lib/server/http/answers';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async () => {
  const key = await services().acquirer?.key();
  return key ? answer(key) : refused(503, 'card/no-acquirer');
};
