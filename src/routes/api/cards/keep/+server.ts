import { cardKeepSchema } from '$lib/core/payment/card-messages';
import { cardReply, noAcquirer } from '$lib/server/cards/card-answer';
import { ofBusiness } from '$lib/server/cards/card-route';
import { readBody } from '$lib/server/http/read-body';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** Puts a card on file with the acquirer; the device writes down what it is called there. */
export const POST: RequestHandler = async ({ request, locals }) => {
  const read = await readBody(request, cardKeepSchema);
  if (!read.ok) return read.response;
  const { acquirer } = services();
  if (acquirer === null) return noAcquirer('No acquirer takes cards for this server.');
  const { customer, sealed } = read.body;
  return cardReply(await acquirer.keep(ofBusiness(locals.device.business, customer), sealed));
};
