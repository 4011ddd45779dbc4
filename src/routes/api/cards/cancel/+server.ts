import { refused } from '$lib/server/http/answers';
import { cardCancelSchema } from '$lib/core/payment/card-messages';
import { cardRoute } from '$lib/server/cards/card-route';
import { mayCancel } from '$lib/server/cards/may-undo';
import { services } from '$lib/server/services';

/** Undoes whatever there is of a payment, and refuses what may still come of it. */
export const POST = cardRoute(cardCancelSchema, async (asking, { payment }) => {
  const { database } = services();
  const undoing = await mayCancel(database, asking.business, asking.device, payment);
  return undoing.may ? await asking.acquirer.cancel(asking.reference) : refused(409, undoing.code);
});
