import { verifySchema } from '$lib/core/access/account-messages';
import { addressKey } from '$lib/server/access/address-key';
import { finishVerification } from '$lib/server/access/verification';
import { doBehind } from '$lib/server/behind';
import { answer, refused } from '$lib/server/http/answers';
import { readBody } from '$lib/server/http/read-body';
import { tooMany } from '$lib/server/http/too-many';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** Whoever has the link reads the owner's mail; it signs nobody in. */
export const POST: RequestHandler = async ({ request, getClientAddress }) => {
  const { database, limits } = services();
  const read = await readBody(request, verifySchema);
  if (!read.ok) return read.response;
  const turned = await tooMany(limits, 'link', addressKey(getClientAddress()));
  if (turned !== null) return turned;
  if (await finishVerification(database, read.body.token, Date.now())) {
    // Receipts may have been waiting for it.
    doBehind();
    return answer({ done: true });
  }
  return refused(409, 'link/spent');
};
