import { answer } from '$lib/server/http/answers';
import { keptEntries } from '$lib/server/daybook/kept';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** What the server has received and could not apply. */
export const GET: RequestHandler = async ({ locals }) =>
  answer({ kept: await keptEntries(services().database, locals.device.business) });
