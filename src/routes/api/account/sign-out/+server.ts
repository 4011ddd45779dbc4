import { answer } from '$lib/server/http/answers';
import { dropSession } from '$lib/server/http/session-cookie';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** Ends the session on the server, so that a copy of its cookie is worth nothing. */
export const POST: RequestHandler = async ({ locals, cookies }) => {
  await services().accounts.end(locals.owner, locals.owner.session);
  dropSession(cookies);
  return answer({ done: true });
};
