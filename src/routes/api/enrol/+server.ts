import { enrolSchema } from '$lib/core/daybook/sync-messages';
import { answer, refused } from '$lib/server/http/answers';
import { readBody } from '$lib/server/http/read-body';
import { tooMany } from '$lib/server/http/too-many';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

const sentences = {
  'code/unknown': 'This code is not known. Check it, or ask for a new one.',
  'code/expired': 'This code has run out. Ask for a new one.',
  'code/used':
    'This code has enrolled a device already. Each code is good for one; ask for a new one.',
  'device/known': 'This browser is enrolled already under another code.',
} as const;

export const POST: RequestHandler = async ({ request, getClientAddress }) => {
  const read = await readBody(request, enrolSchema);
  if (!read.ok) return read.response;
  const turned = await tooMany(services().limits, 'code', getClientAddress());
  if (turned !== null) return turned;
  const { code, device, token } = read.body;
  const outcome = await services().enrolment.enrol(code, device, token, Date.now());
  if (outcome.ok) await services().limits.forget('code', getClientAddress());
  if (outcome.ok) return answer({ business: outcome.business, number: outcome.number });
  return refused(409, { code: outcome.refusal.code, message: sentences[outcome.refusal.code] });
};
