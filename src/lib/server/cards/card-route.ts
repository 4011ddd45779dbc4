/** A route that asks the acquirer about a payment of the asking device's business. */
import { refused } from '../http/answers';
import type { RequestEvent } from '@sveltejs/kit';
import type { z } from 'zod';
import { readBody } from '../http/read-body';
import { services } from '../services';
import type { Acquirer, AcquirerAnswer } from './acquirer';
import { cardReply } from './card-answer';
import { noteAnswer } from './cards-asked';

/** What the acquirer calls something of a business: those of two businesses never meet. */
export const ofBusiness = (business: string, id: string): string => `${business}:${id}`;

export interface AskingAcquirer {
  readonly acquirer: Acquirer;
  readonly business: string;
  readonly device: string;
  /** What the acquirer calls the payment. */
  readonly reference: string;
}

/**
 * The reference is the payment, so whoever dies between asking and hearing can ask again and hears the same.
 * What the acquirer says is noted as well: it is what devices' own words are compared with.
 */
export const cardRoute =
  <S extends z.ZodType<{ readonly payment: string }>>(
    schema: S,
    ask: (asking: AskingAcquirer, body: z.infer<S>) => Promise<AcquirerAnswer | Response>,
  ) =>
  async ({ request, locals }: RequestEvent): Promise<Response> => {
    const read = await readBody(request, schema);
    if (!read.ok) return read.response;
    const { acquirer, database } = services();
    if (acquirer === null) return refused(503, 'card/no-acquirer');
    const { business, device } = locals.device;
    const { payment } = read.body;
    const reference = ofBusiness(business, payment);
    const said = await ask({ acquirer, business, device, reference }, read.body);
    if (said instanceof Response) return said;
    if (said.came === 'answer') await noteAnswer(database, business, payment, said.answer);
    return cardReply(said);
  };
