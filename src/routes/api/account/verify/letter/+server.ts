import { answer, refused } from '$lib/server/http/answers';
import { tooMany } from '$lib/server/http/too-many';
import { sendVerification } from '$lib/server/mail/verification-letter';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** The letter once more. */
export const POST: RequestHandler = async ({ url, locals }) => {
  const { accounts, limits, mailer } = services();
  if (mailer === null) {
    return refused(503, 'mail/none');
  }
  const { email } = await accounts.addressOf(locals.owner);
  const turned = await tooMany(limits, 'letters', email);
  if (turned !== null) return turned;
  sendVerification(locals.owner.owner, email, url.origin);
  return answer({ done: true });
};
