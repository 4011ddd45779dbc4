/** A route that asks the acquirer about a payment of the asking device's business. */
import type { RequestEvent } from '@sveltejs/kit';
import type { z } from 'zod';
import { readBody } from '../http/read-body';
import { services } from '../services';
import type { Acquirer, AcquirerAnswer } from './acquirer';
import { cardReply, noAcquirer } from './card-answer';

/** What the acquirer calls something of a business: those of two businesses never meet. */
export const ofBusiness = (business: string, id: string): string => `${business}:${id}`;

/**
 * Nothing is kept here: the reference is the payment, so whoever dies between asking and hearing can ask
 * again and hears the same. Payments of different businesses never meet under one reference.
 */
export const cardRoute =
  <S extends z.ZodType<{ readonly payment: string }>>(
    schema: S,
    ask: (acquirer: Acquirer, reference: string, body: z.infer<S>) => Promise<AcquirerAnswer>,
  ) =>
  async ({ request, locals }: RequestEvent): Promise<Response> => {
    const read = await readBody(request, schema);
    if (!read.ok) return read.response;
    const { acquirer } = services();
    if (acquirer === null) return noAcquirer('No acquirer takes cards for this server.');
    const reference = ofBusiness(locals.device.business, read.body.payment);
    return cardReply(await ask(acquirer, reference, read.body));
  };
