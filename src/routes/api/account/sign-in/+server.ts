import { signInSchema } from '$lib/core/access/account-messages';
import { answer, refused } from '$lib/server/http/answers';
import { readBody } from '$lib/server/http/read-body';
import { giveSession } from '$lib/server/http/session-cookie';
import { tooMany } from '$lib/server/http/too-many';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = async ({ request, cookies, getClientAddress }) => {
  const { accounts, limits } = services();
  const read = await readBody(request, signInSchema);
  if (!read.ok) return read.response;
  const email = read.body.email.trim().toLowerCase();
  const fromHere = `${email} ${getClientAddress()}`;
  const turned =
    (await tooMany(limits, 'password', fromHere)) ?? (await tooMany(limits, 'account', email));
  if (turned !== null) return turned;
  const owner = await accounts.ownerOf(email, read.body.password);
  if (owner === null) {
    const message = 'E-mail address and password do not belong together.';
    return refused(401, { code: 'owner/wrong', message });
  }
  await limits.forget('password', fromHere);
  const agent = request.headers.get('user-agent') ?? '';
  giveSession(cookies, await accounts.begin(owner, agent, Date.now()));
  return answer({ done: true });
};
