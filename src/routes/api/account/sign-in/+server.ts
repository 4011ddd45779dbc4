import type { Cookies } from '@sveltejs/kit';
import { signInSchema } from '$lib/core/access/account-messages';
import { addressKey } from '$lib/server/access/address-key';
import { isKnownBrowser } from '$lib/server/access/known-browsers';
import type { Rule } from '$lib/server/access/limits';
import { answer, refused } from '$lib/server/http/answers';
import { beginSession } from '$lib/server/http/begin-session';
import { readBody } from '$lib/server/http/read-body';
import { knownToken } from '$lib/server/http/session-cookie';
import { tooMany } from '$lib/server/http/too-many';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = async ({ request, cookies, getClientAddress }) => {
  const { accounts, limits } = services();
  const read = await readBody(request, signInSchema);
  if (!read.ok) return read.response;
  const email = read.body.email.trim().toLowerCase();
  const counted = await countedUnder(cookies, email, addressKey(getClientAddress()));
  for (const [rule, who] of counted) {
    const turned = await tooMany(limits, rule, who);
    if (turned !== null) return turned;
  }
  const account = await accounts.ownerOf(email, read.body.password);
  if (account === null || !(await beginSession({ request, cookies }, account, Date.now()))) {
    return refused(401, 'owner/wrong');
  }
  for (const [rule, who] of counted) {
    // Of this account they may be forgotten; of an address that tries others, only this one was right.
    if (rule === 'password' || rule === 'known') await limits.forget(rule, who);
    else await limits.giveBack(rule, who);
  }
  return answer({ done: true });
};

/** A browser that this owner has signed in on has a lane that strangers cannot use up. */
async function countedUnder(
  cookies: Cookies,
  email: string,
  address: string,
): Promise<readonly (readonly [rule: Rule, who: string])[]> {
  const known = knownToken(cookies);
  if (known !== null && (await isKnownBrowser(services().database, known, email, Date.now())))
    return [['known', known]];
  return [
    ['spraying', address],
    ['password', `${email} ${address}`],
    ['account', email],
  ];
}
