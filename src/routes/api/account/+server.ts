import type { Account } from '$lib/core/access/account-messages';
import { answer } from '$lib/server/http/answers';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ locals }) => {
  const { accounts, passkeys } = services();
  const account: Account = {
    ...(await accounts.addressOf(locals.owner)),
    session: locals.owner.session,
    sessions: await accounts.sessions(locals.owner, Date.now()),
    passkeys: await passkeys.of(locals.owner),
  };
  return answer(account);
};
