import { passwordChangeSchema } from '$lib/core/access/account-messages';
import { passwordFault } from '$lib/server/access/passwords';
import { answer, refused } from '$lib/server/http/answers';
import { readBody } from '$lib/server/http/read-body';
import { tooMany } from '$lib/server/http/too-many';
import { tellOwner } from '$lib/server/mail/notices';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** Another password; every other session ends, and the passkeys as well if that is wanted. */
export const POST: RequestHandler = async ({ request, url, locals }) => {
  const { accounts, passkeys, limits } = services();
  const { owner } = locals;
  const read = await readBody(request, passwordChangeSchema);
  if (!read.ok) return read.response;
  const { current, next, removePasskeys } = read.body;
  const { email } = await accounts.addressOf(owner);
  const fault = passwordFault(next, [email, email.split('@')[0] ?? '']);
  if (fault !== null) return refused(422, fault.code);
  const turned = await tooMany(limits, 'passwordChange', owner.owner);
  if (turned !== null) return turned;
  if (!(await accounts.changePassword(owner, current, next, removePasskeys))) {
    return refused(409, 'password/wrong');
  }
  await limits.forget('passwordChange', owner.owner);
  tellOwner(email, 'password set', url.origin);
  return answer({ done: true, passkeys: (await passkeys.of(owner)).length });
};
