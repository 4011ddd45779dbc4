import { start } from '$lib/server/daybook/pull';
import { answer } from '$lib/server/http/answers';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ locals }) => {
  const { database, books } = services();
  return answer(await start(database, books, locals.device.business, Date.now()));
};
