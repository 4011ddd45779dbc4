import { answer } from '$lib/server/http/answers';
import { noAcquirer } from '$lib/server/cards/card-answer';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async () => {
  const key = await services().acquirer?.key();
  return key ? answer(key) : noAcquirer('No acquirer takes cards for this server.');
};
