import { answer } from '$lib/server/http/answers';
import { partyOf } from '$lib/server/http/relying-party';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** What the owner's browser makes a new passkey from. */
export const POST: RequestHandler = async ({ url, locals }) => {
  const { accounts, passkeys } = services();
  const { email } = await accounts.addressOf(locals.owner);
  return answer(await passkeys.beginAdding(locals.owner, email, partyOf(url), Date.now()));
};
