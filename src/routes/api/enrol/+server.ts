import { enrolSchema } from '$lib/core/daybook/sync-messages';
import { addressKey } from '$lib/server/access/address-key';
import { answer, refused } from '$lib/server/http/answers';
import { readBody } from '$lib/server/http/read-body';
import { tooMany } from '$lib/server/http/too-many';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = async ({ request, getClientAddress }) => {
  const read = await readBody(request, enrolSchema);
  if (!read.ok) return read.response;
  const { limits, enrolment } = services();
  const from = addressKey(getClientAddress());
  const turned = await tooMany(limits, 'code', from);
  if (turned !== null) return turned;
  const { code, device, token } = read.body;
  const outcome = await enrolment.enrol(code, device, token, Date.now());
  // The right one, whether for the first time or again, is no guess; the guesses before it still are.
  if (outcome.ok) await limits.giveBack('code', from);
  if (outcome.ok) return answer({ business: outcome.business, number: outcome.number });
  return refused(409, outcome.refusal.code);
};
