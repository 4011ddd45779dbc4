import { cardCancelSchema } from '$lib/core/payment/card-messages';
import { cardReply, noAcquirer, referenceOf } from '$lib/server/cards/card-answer';
import { readBody } from '$lib/server/http/read-body';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** Undoes whatever there is of a payment, and refuses what may still come of it. */
export const POST: RequestHandler = async ({ request, locals }) => {
  const read = await readBody(request, cardCancelSchema);
  if (!read.ok) return read.response;
  const { acquirer } = services();
  if (acquirer === null) return noAcquirer('No acquirer takes cards for this server.');
  return cardReply(await acquirer.cancel(referenceOf(locals.device.business, read.body.payment)));
};
