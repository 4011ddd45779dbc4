import { pushSchema } from '$lib/core/daybook/sync-messages';
import { putAside } from '$lib/server/access/devices';
import { answer, refused } from '$lib/server/http/answers';
import { readBody } from '$lib/server/http/read-body';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** A device that was shut out hands over what it had not sent. It is put aside, not applied. */
export const POST: RequestHandler = async ({ request, locals }) => {
  const read = await readBody(request, pushSchema);
  if (!read.ok) return read.response;
  const { business, device } = locals.device;
  const { entries } = read.body;
  if (entries.some((entry) => entry.business !== business || entry.device !== device)) {
    return refused(409, 'entry/other-device');
  }
  if (await putAside(services().database, locals.device, entries)) return answer({ done: true });
  return refused(409, 'unsent/too-many');
};
