import { cardAskSchema } from '$lib/core/payment/card-messages';
import { cardRoute } from '$lib/server/cards/card-route';

export const POST = cardRoute(
  cardAskSchema,
  (acquirer, reference, { payment: _payment, ...asked }) =>
    acquirer.authorise({ ...asked, reference }),
);
