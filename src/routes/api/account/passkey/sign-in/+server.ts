import { passkeySignedSchema } from '$lib/core/access/account-messages';
import { addressKey } from '$lib/server/access/address-key';
import { answer } from '$lib/server/http/answers';
import { beginSession } from '$lib/server/http/begin-session';
import { passkeyRefused } from '$lib/server/http/passkey-refused';
import { readBody } from '$lib/server/http/read-body';
import { partyOf } from '$lib/server/http/relying-party';
import { tooMany } from '$lib/server/http/too-many';
import { services } from '$lib/server/services';
import type { AuthenticationResponseJSON } from '@simplewebauthn/server';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = async ({ request, url, cookies, getClientAddress }) => {
  const { passkeys, limits } = services();
  const read = await readBody(request, passkeySignedSchema);
  if (!read.ok) return read.response;
  const turned = await tooMany(limits, 'passkey', addressKey(getClientAddress()));
  if (turned !== null) return turned;
  const now = Date.now();
  const signed = read.body as AuthenticationResponseJSON;
  const account = await passkeys.ownerOf(signed, partyOf(url), now);
  if ('code' in account) return passkeyRefused(account);
  if (!(await beginSession({ request, cookies }, account, now)))
    return passkeyRefused({ code: 'passkey/wrong' });
  return answer({ done: true });
};
