import { resetSchema } from '$lib/core/access/account-messages';
import { addressKey } from '$lib/server/access/address-key';
import { finishReset, ownerOfReset } from '$lib/server/access/forgotten';
import { passwordFault } from '$lib/server/access/passwords';
import { answer, refused } from '$lib/server/http/answers';
import { readBody } from '$lib/server/http/read-body';
import { tooMany } from '$lib/server/http/too-many';
import { tellOwner } from '$lib/server/mail/notices';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = async ({ request, url, getClientAddress }) => {
  const { database, passkeys, limits } = services();
  const read = await readBody(request, resetSchema);
  if (!read.ok) return read.response;
  const turned = await tooMany(limits, 'link', addressKey(getClientAddress()));
  if (turned !== null) return turned;
  const { token, password, removePasskeys } = read.body;
  const now = Date.now();
  const whose = await ownerOfReset(database, token, now);
  if (whose === null) return spent();
  const { email } = whose;
  const fault = passwordFault(password, [email, email.split('@')[0] ?? '']);
  if (fault !== null) return refused(422, fault.code);
  if (!(await finishReset(database, token, password, removePasskeys, now))) return spent();
  tellOwner(email, 'password set', url.origin);
  // Whoever was kept out by a stranger's guesses comes in again at once.
  await limits.forget('account', email);
  return answer({ done: true, passkeys: (await passkeys.of(whose)).length });
};

const spent = (): Response => refused(409, 'link/spent');
