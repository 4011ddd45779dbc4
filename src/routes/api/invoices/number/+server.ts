import { numberAskSchema } from '$lib/core/invoice/number-messages';
import { answer, refused } from '$lib/server/http/answers';
import { readBody } from '$lib/server/http/read-body';
import { numberInvoice } from '$lib/server/invoices/number-invoice';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** The number of an invoice or a credit note that the server knows: the same however often it is asked for. */
export const POST: RequestHandler = async ({ request, locals }) => {
  const read = await readBody(request, numberAskSchema);
  if (!read.ok) return read.response;
  const { database, books } = services();
  const number = await numberInvoice(database, books, locals.device.business, read.body.invoice);
  return number === null ? refused(409, 'invoice/not-here') : answer(number);
};
