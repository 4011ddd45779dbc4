import { answer, refused } from '$lib/server/http/answers';
import { cardRefundSchema } from '$lib/core/payment/card-messages';
import { ofBusiness } from '$lib/server/cards/card-route';
import { decidedRefund, noteRefund, refundSaid } from '$lib/server/cards/refunds';
import { readBody } from '$lib/server/http/read-body';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** Gives back to the card what a return that stands says, once however often it is asked. */
export const POST: RequestHandler = async ({ request, locals }) => {
  const read = await readBody(request, cardRefundSchema);
  if (!read.ok) return read.response;
  const { acquirer, database } = services();
  if (acquirer === null) return refused(503, 'card/no-acquirer');
  const { business, device } = locals.device;
  const { refund } = read.body;
  const decided = await decidedRefund(database, business, device, refund);
  if (typeof decided === 'string') return refused(409, decided);
  const said = await acquirer.refund(
    ofBusiness(business, decided.payment),
    ofBusiness(business, refund),
    decided.amount,
  );
  if (said.came === 'unknown')
    return said.says === undefined
      ? refused(503, 'card/no-answer')
      : refused(409, 'card/not-now', said.says);
  const state = said.came === 'answer' ? 'refunded' : 'refused';
  await noteRefund(database, business, { refund, state, amount: decided.amount });
  return answer(refundSaid(state, decided.amount, said.came === 'answer' ? '' : said.message));
};
