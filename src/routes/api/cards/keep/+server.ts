import { cardKeepSchema } from '$lib/core/payment/card-messages';
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
  if (acquirer === null) return refused(503, 'card/no-acquirer');
  const { customer, sealed } = read.body;
  const { business } = locals.device;
  const [known] = await books.rows(business, 'customers', { id: customer });
  if (known === undefined || known.setStamp === '' || known.isErased)
    return refused(409, 'customer/unknown');
  const said = await keepOnFile(database, acquirer, business, customer, sealed, Date.now());
  if (said.came === 'answer') return answer(said.card);
  if (said.came === 'refusal') return refused(409, 'card/refused', said.message);
  return said.came === 'overtaken'
    ? refused(409, 'card/overtaken')
    : refused(503, 'card/no-answer');
};
