import { answer } from '$lib/server/http/answers';
import { tellOwner } from '$lib/server/mail/notices';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

const LIFETIME = 15 * 60 * 1000;

/** A code that enrols one more device of the owner’s business, for a quarter of an hour. */
export const POST: RequestHandler = async ({ locals, url }) => {
  const { accounts, enrolment } = services();
  const now = Date.now();
  const code = await enrolment.makeCode(locals.owner.business, now, LIFETIME);
  tellOwner((await accounts.addressOf(locals.owner)).email, 'device code', url.origin);
  return answer({ code, expires: new Date(now + LIFETIME).toISOString() });
};
