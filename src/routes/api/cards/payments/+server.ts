import { cardAskSchema } from '$lib/core/payment/card-messages';
import { cardReply, noAcquirer, referenceOf } from '$lib/server/cards/card-answer';
import { readBody } from '$lib/server/http/read-body';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/**
 * Asks the acquirer. Nothing is kept here: the reference is the payment, so whoever dies between asking
 * and hearing can ask again and hears the same.
 */
export const POST: RequestHandler = async ({ request, locals }) => {
  const read = await readBody(request, cardAskSchema);
  if (!read.ok) return read.response;
  const { acquirer } = services();
  if (acquirer === null) return noAcquirer('No acquirer takes cards for this server.');
  const { payment, ...asked } = read.body;
  const reference = referenceOf(locals.device.business, payment);
  return cardReply(await acquirer.authorise({ ...asked, reference }));
};
