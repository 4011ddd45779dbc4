import { answer, refused } from '$lib/server/http/answers';
import { cardRefundSchema } from '$lib/core/payment/card-messages';
import { ofBusiness } from '$lib/server/cards/card-route';
import { cardReply } from '$lib/server/cards/card-answer';
import { decidedRefund, notedRefund, noteRefund } from '$lib/server/cards/refunds';
import { readBody } from '$lib/server/http/read-body';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** Gives to the card what a return, or a refund without a sale, that stands says: once however often it is asked. */
export const POST: RequestHandler = async ({ request, locals }) => {
  const read = await readBody(request, cardRefundSchema);
  if (!read.ok) return read.response;
  const { acquirer, database } = services();
  if (acquirer === null) return refused(503, 'card/no-acquirer');
  const { business, device } = locals.device;
  const { refund } = read.body;
  const decided = await decidedRefund(database, business, device, refund);
  if (typeof decided === 'string') return refused(409, decided);
  const noted = await notedRefund(database, business, refund);
  if (noted !== null) return answer(noted);
  const { payment, sealed, amount, currency } = decided;
  const own = ofBusiness(business, refund);
  const said =
    payment === null
      ? await acquirer.credit({ reference: own, amount, currency, sealed })
      : await acquirer.refund(ofBusiness(business, payment), own, amount);
  if (said.came === 'unknown') return cardReply(said);
  const came =
    said.came === 'answer'
      ? ({ state: 'refunded', amount, reason: '' } as const)
      : ({ state: 'refused', amount, reason: said.message } as const);
  return answer(await noteRefund(database, business, refund, came));
};
