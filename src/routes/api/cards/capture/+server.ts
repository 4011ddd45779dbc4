import { refused } from '$lib/server/http/answers';
import { cardHoldSchema } from '$lib/core/payment/card-messages';
import { cardRoute } from '$lib/server/cards/card-route';
import { decidedHold } from '$lib/server/cards/may-undo';
import { services } from '$lib/server/services';

/** Takes what is held, as much of it as was decided. */
export const POST = cardRoute(cardHoldSchema, async (asking, { payment }) => {
  const decided = await decidedHold(services().database, asking.business, payment);
  return decided?.does === 'capture'
    ? await asking.acquirer.capture(asking.reference, decided.amount)
    : refused(409, 'card/not-decided');
});
