import { answer, nothingHere } from '$lib/server/http/answers';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

export const DELETE: RequestHandler = async ({ locals, params }) =>
  (await services().passkeys.remove(locals.owner, params.id))
    ? answer({ done: true })
    : nothingHere();
