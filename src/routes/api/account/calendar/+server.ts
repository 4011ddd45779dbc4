import { answer } from '$lib/server/http/answers';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** Whether calendars can follow the events, and since when. */
export const GET: RequestHandler = async ({ locals }) =>
  answer({ made: await services().calendars.madeAt(locals.owner.business) });

/** A new address; the one before is good no more. */
export const POST: RequestHandler = async ({ locals, url }) => {
  const token = await services().calendars.give(locals.owner.business, Date.now());
  return answer({ address: `${url.origin}/api/calendar/${token}.ics` });
};

export const DELETE: RequestHandler = async ({ locals }) => {
  await services().calendars.withdraw(locals.owner.business);
  return answer({ done: true });
};
