import { cardCancelSchema } from '$lib/core/payment/card-messages';
import { cardRoute } from '$lib/server/cards/card-route';

/** Undoes whatever there is of a payment, and refuses what may still come of it. */
export const POST = cardRoute(cardCancelSchema, (acquirer, reference) =>
  acquirer.cancel(reference),
);
