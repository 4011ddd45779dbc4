import { addressKey } from '$lib/server/access/address-key';
import { answer } from '$lib/server/http/answers';
import { partyOf } from '$lib/server/http/relying-party';
import { tooMany } from '$lib/server/http/too-many';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** What a passkey is asked to sign; says nothing of who has one. */
export const POST: RequestHandler = async ({ url, getClientAddress }) => {
  const { passkeys, limits } = services();
  const turned = await tooMany(limits, 'passkey', addressKey(getClientAddress()));
  if (turned !== null) return turned;
  return answer(await passkeys.beginSignIn(partyOf(url), Date.now()));
};
