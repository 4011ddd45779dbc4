import { pushSchema } from '$lib/core/daybook/sync-messages';
import { noteCopy } from '$lib/server/access/devices';
import { append } from '$lib/server/daybook/append';
import { inTurn } from '$lib/server/daybook/in-turn';
import { notNow } from '$lib/server/http/not-now';
import { answer } from '$lib/server/http/answers';
import { doBehind } from '$lib/server/behind';
import { readBody } from '$lib/server/http/read-body';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = async ({ request, locals }) => {
  const read = await readBody(request, pushSchema);
  if (!read.ok) return read.response;
  const { database } = services();
  const result = await inTurn(locals.device.business, () =>
    append(database, locals.device, read.body.entries),
  ).catch(notNow);
  if (result instanceof Response) return result;
  if (result.refused?.code === 'chain/forked') {
    await noteCopy(database, locals.device, Date.now());
  }
  // What waits to be sent goes now that there is network; the answer does not wait for it.
  doBehind();
  return answer(result, result.refused === null ? 200 : 409);
};
