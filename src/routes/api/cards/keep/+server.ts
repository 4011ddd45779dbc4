import { cardKeepSchema } from '$lib/core/payment/card-messages';
import { cardRefused, noAcquirer } from '$lib/server/cards/card-answer';
import { keepOnFile } from '$lib/server/cards/cards-on-file';
import { answer, refused } from '$lib/server/http/answers';
import { readBody } from '$lib/server/http/read-body';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/**
 * Puts a card on file with the acquirer, for a customer who is known and has agreed. What the acquirer calls
 * it stays here; the device writes down what people tell it by.
 */
export const POST: RequestHandler = async ({ request, locals }) => {
  const read = await readBody(request, cardKeepSchema);
  if (!read.ok) return read.response;
  const { acquirer, database, books } = services();
  if (acquirer === null) return noAcquirer('No acquirer takes cards for this server.');
  const { customer, sealed } = read.body;
  const { business } = locals.device;
  const [known] = await books.rows(business, 'customers', { id: customer });
  if (known === undefined || known.setStamp === '' || known.isErased)
    return refused(409, {
      code: 'customer/unknown',
      message:
        'We have not heard of this customer yet. Try again once this device has sent all it has.',
    });
  const said = await keepOnFile(database, acquirer, business, customer, sealed, Date.now());
  if (said.came === 'answer') return answer(said.card);
  if (said.came === 'refusal') return cardRefused(said.message);
  return said.came === 'overtaken'
    ? refused(409, {
        code: 'card/overtaken',
        message:
          'Another card was put on file for this customer at the same time. Do it once more.',
      })
    : noAcquirer('The acquirer does not answer. Put the card on file again when it does.');
};
