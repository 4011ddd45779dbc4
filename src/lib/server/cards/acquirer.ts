/** Whoever authorises cards and pays them out. Its client here speaks to the stand-in's interface. */
import { z } from 'zod';
import { cardAnswerSchema, cardKeySchema, type CardAnswer } from '../../core/payment/card-messages';

export interface CardAsked {
  /** The same reference is the same payment for ever, however often it is asked. */
  readonly reference: string;
  /** Minor units. */
  readonly amount: number;
  readonly currency: string;
  /** Of the card: sealed for the acquirer, opaque to us. */
  readonly sealed: string;
  readonly capture: boolean;
  readonly voice: string;
}

/** What came of asking. `unknown`: there is no telling whether it was done; ask again, same reference. */
export type AcquirerAnswer =
  | { readonly came: 'answer'; readonly answer: CardAnswer }
  | { readonly came: 'refusal'; readonly message: string }
  | { readonly came: 'unknown' };

export interface Acquirer {
  authorise(asked: CardAsked): Promise<AcquirerAnswer>;
  /** Undoes whatever there is of it; what comes later under the reference is refused. */
  cancel(reference: string): Promise<AcquirerAnswer>;
  /** Takes what is held, or less of it. */
  capture(reference: string, amount: number): Promise<AcquirerAnswer>;
  /** Lets go of what is held. */
  release(reference: string): Promise<AcquirerAnswer>;
  /** What cards are sealed with; null if nobody answers. */
  key(): Promise<z.infer<typeof cardKeySchema> | null>;
}

const PATIENCE = 8_000;

const paymentSchema = cardAnswerSchema
  .omit({ acquirer: true })
  .extend({ id: z.string().max(64) })
  .transform(({ id, ...rest }): CardAnswer => ({ ...rest, acquirer: id }));
const refusalSchema = z.object({ code: z.string(), message: z.string() });

/**
 * By HTTP (standins/acquirer/README.md).
 * @param url Such as https://acquirer.example
 */
export function httpAcquirer(url: string, apiKey: string, patience = PATIENCE): Acquirer {
  const headers = { authorization: `Bearer ${apiKey}`, 'content-type': 'application/json' };
  const ask = async (path: string, body?: unknown): Promise<Response> =>
    await fetch(new URL(path, url), {
      method: body === undefined ? 'GET' : 'POST',
      headers,
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      signal: AbortSignal.timeout(patience),
    });
  const askPayment = async (path: string, body: unknown): Promise<AcquirerAnswer> => {
    try {
      const response = await ask(path, body);
      const value: unknown = await response.json();
      const payment = paymentSchema.safeParse(value);
      if (response.ok && payment.success) return { came: 'answer', answer: payment.data };
      const refusal = refusalSchema.safeParse(value);
      if (response.status < 500 && refusal.success)
        return { came: 'refusal', message: refusal.data.message };
    } catch {
      // Said below: it may or may not have happened.
    }
    return { came: 'unknown' };
  };
  return {
    authorise: async (asked) => await askPayment('/payments', asked),
    cancel: async (reference) => await askPayment('/cancel', { reference }),
    capture: async (reference, amount) => await askPayment('/capture', { reference, amount }),
    release: async (reference) => await askPayment('/release', { reference }),
    key: async () => {
      try {
        const response = await ask('/key');
        const read = cardKeySchema.safeParse(await response.json());
        return response.ok && read.success ? read.data : null;
      } catch {
        return null;
      }
    },
  };
}
