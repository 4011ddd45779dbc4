import { passkeyMadeSchema } from '$lib/core/access/account-messages';
import { answer } from '$lib/server/http/answers';
import { passkeyRefused } from '$lib/server/http/passkey-refused';
import { readBody } from '$lib/server/http/read-body';
import { partyOf } from '$lib/server/http/relying-party';
import { tellOwner } from '$lib/server/mail/notices';
import { services } from '$lib/server/services';
import type { RegistrationResponseJSON } from '@simplewebauthn/server';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = async ({ request, url, locals }) => {
  const { accounts, passkeys } = services();
  const { owner } = locals;
  const read = await readBody(request, passkeyMadeSchema);
  if (!read.ok) return read.response;
  const { name } = read.body;
  const made = read.body.passkey as RegistrationResponseJSON;
  const refusal = await passkeys.add(owner, name, made, partyOf(url), Date.now());
  if (refusal !== null) return passkeyRefused(refusal);
  tellOwner((await accounts.addressOf(owner)).email, 'passkey added', url.origin);
  return answer({ done: true });
};
