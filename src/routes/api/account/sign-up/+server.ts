import { signUpSchema } from '$lib/core/access/account-messages';
import { addressKey } from '$lib/server/access/address-key';
import { passwordFault } from '$lib/server/access/passwords';
import { answer, refused } from '$lib/server/http/answers';
import { beginSession } from '$lib/server/http/begin-session';
import { readBody } from '$lib/server/http/read-body';
import { tooMany } from '$lib/server/http/too-many';
import { sendVerification } from '$lib/server/mail/verification-letter';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/**
 * A business begins: its owner, its first device, and the owner's session, in one go. Whose session it
 * is stands in the stored account alone; nothing that is sent names an account.
 */
export const POST: RequestHandler = async ({ request, url, cookies, getClientAddress }) => {
  const { accounts, limits } = services();
  const read = await readBody(request, signUpSchema);
  if (!read.ok) return read.response;
  const { email, password, business } = read.body;
  const fault = passwordFault(password, [email, email.split('@')[0] ?? '', business]);
  if (fault !== null) return refused(422, fault.code);
  const turned = await tooMany(limits, 'signUp', addressKey(getClientAddress()));
  if (turned !== null) return turned;
  const now = Date.now();
  const outcome = await accounts.signUp(read.body, now);
  if (!outcome.ok || !(await beginSession({ request, cookies }, outcome.account, now))) {
    return refused(409, 'email/taken');
  }
  const { account } = outcome;
  const address = await accounts.addressOf(account);
  if (!address.isVerified) sendVerification(account.owner, address.email, url.origin);
  return answer({ business: outcome.business, number: outcome.number });
};
