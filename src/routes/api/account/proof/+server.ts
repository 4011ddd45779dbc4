import { proofSchema } from '$lib/core/access/account-messages';
import { answer, refused } from '$lib/server/http/answers';
import { readBody } from '$lib/server/http/read-body';
import { tooMany } from '$lib/server/http/too-many';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** The password once more, before something that cannot be undone. */
export const POST: RequestHandler = async ({ request, locals }) => {
  const { accounts, limits } = services();
  const { owner } = locals;
  const read = await readBody(request, proofSchema);
  if (!read.ok) return read.response;
  const turned = await tooMany(limits, 'passwordChange', owner.owner);
  if (turned !== null) return turned;
  if (!(await accounts.prove(owner, read.body.password, Date.now())))
    return refused(409, 'password/wrong');
  await limits.forget('passwordChange', owner.owner);
  return answer({ done: true });
};
