import { signUpSchema } from '$lib/core/access/account-messages';
import { passwordFault } from '$lib/server/access/passwords';
import { answer, refused } from '$lib/server/http/answers';
import { passwordWords } from '$lib/server/http/password-words';
import { readBody } from '$lib/server/http/read-body';
import { giveSession } from '$lib/server/http/session-cookie';
import { tooMany } from '$lib/server/http/too-many';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** A business begins: its owner, its first device, and the owner's session, in one go. */
export const POST: RequestHandler = async ({ request, cookies, getClientAddress }) => {
  const { accounts, limits } = services();
  const read = await readBody(request, signUpSchema);
  if (!read.ok) return read.response;
  const { email, password, business } = read.body;
  const fault = passwordFault(password, [email, email.split('@')[0] ?? '', business]);
  if (fault !== null) return refused(422, { code: fault.code, message: passwordWords[fault.code] });
  const turned = await tooMany(limits, 'signUp', getClientAddress());
  if (turned !== null) return turned;
  const now = Date.now();
  const outcome = await accounts.signUp(read.body, now);
  if (!outcome.ok) {
    const message = 'There is a business under this e-mail address already; sign in instead.';
    return refused(409, { code: outcome.refusal.code, message });
  }
  const known = { owner: read.body.owner, business: outcome.business };
  giveSession(cookies, await accounts.begin(known, request.headers.get('user-agent') ?? '', now));
  return answer({ business: outcome.business, number: outcome.number });
};
