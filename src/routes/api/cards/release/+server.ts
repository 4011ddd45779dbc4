import { cardCancelSchema } from '$lib/core/payment/card-messages';
import { cardRoute } from '$lib/server/cards/card-route';

export const POST = cardRoute(cardCancelSchema, (acquirer, reference) =>
  acquirer.release(reference),
);
