import { passkeySignedSchema } from '$lib/core/access/account-messages';
import { answer } from '$lib/server/http/answers';
import { passkeyRefused } from '$lib/server/http/passkey-refused';
import { readBody } from '$lib/server/http/read-body';
import { partyOf } from '$lib/server/http/relying-party';
import { giveSession } from '$lib/server/http/session-cookie';
import { tooMany } from '$lib/server/http/too-many';
import { services } from '$lib/server/services';
import type { AuthenticationResponseJSON } from '@simplewebauthn/server';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = async ({ request, url, cookies, getClientAddress }) => {
  const { accounts, passkeys, limits } = services();
  const read = await readBody(request, passkeySignedSchema);
  if (!read.ok) return read.response;
  const turned = await tooMany(limits, 'passkey', getClientAddress());
  if (turned !== null) return turned;
  const now = Date.now();
  const signed = read.body as AuthenticationResponseJSON;
  const owner = await passkeys.ownerOf(signed, partyOf(url), now);
  if ('code' in owner) return passkeyRefused(owner);
  const agent = request.headers.get('user-agent') ?? '';
  giveSession(cookies, await accounts.begin(owner, agent, now));
  return answer({ done: true });
};
