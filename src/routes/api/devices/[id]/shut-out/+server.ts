import { shutOut } from '$lib/server/access/devices';
import { answer, nothingHere } from '$lib/server/http/answers';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** From now on the device's token opens nothing. What it had sent stays. */
export const POST: RequestHandler = async ({ locals, params }) => {
  const ref = { business: locals.owner.business, device: params.id };
  const isDone = await shutOut(services().database, ref, Date.now());
  return isDone ? answer({ done: true }) : nothingHere();
};
