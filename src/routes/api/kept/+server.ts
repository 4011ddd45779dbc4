import type { KeptAnswer } from '$lib/core/daybook/sync-messages';
import { chargedUnwritten } from '$lib/server/cards/check-cards';
import { answer } from '$lib/server/http/answers';
import { keptEntries } from '$lib/server/daybook/kept';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** What the server has received and could not apply, or questions; cards that nobody has written down. */
export const GET: RequestHandler = async ({ locals }) => {
  const { database } = services();
  const { business } = locals.device;
  const found: KeptAnswer = {
    ...(await keptEntries(database, business)),
    charged: await chargedUnwritten(database, business, Date.now()),
  };
  return answer(found);
};
