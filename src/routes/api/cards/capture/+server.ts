import { cardCaptureSchema } from '$lib/core/payment/card-messages';
import { cardRoute } from '$lib/server/cards/card-route';

export const POST = cardRoute(cardCaptureSchema, (acquirer, reference, { amount }) =>
  acquirer.capture(reference, amount),
);
