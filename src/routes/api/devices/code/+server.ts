import { answer } from '$lib/server/http/answers';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

const LIFETIME = 15 * 60 * 1000;

/** A code that enrols one more device of the owner’s business, for a quarter of an hour. */
export const POST: RequestHandler = async ({ locals }) => {
  const now = Date.now();
  const code = await services().enrolment.makeCode(locals.owner.business, now, LIFETIME);
  return answer({ code, expires: new Date(now + LIFETIME).toISOString() });
};
