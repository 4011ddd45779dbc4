/** Whoever authorises cards and pays them out. Its client here speaks to the stand-in's interface. */
import { z } from 'zod';
import {
  cardAnswerSchema,
  cardKeySchema,
  reportSchema,
  type CardAnswer,
} from '../../core/payment/card-messages';
import { cardOnFile, type CardOnFile } from '../../core/daybook/kinds/customer-card';

export interface CardAsked {
  /** The same reference is the same payment for ever, however often it is asked. */
  readonly reference: string;
  /** Minor units. */
  readonly amount: number;
  readonly currency: string;
  /** Of the card: sealed for the acquirer, opaque to us; empty for one on file. */
  readonly sealed: string;
  /** Of a card on file, as the acquirer calls it; empty for others. */
  readonly token: string;
  readonly capture: boolean;
  readonly voice: string;
}

/**
 * What came of asking. Only what is said of this very payment is final: an answer with its state, or a refusal
 * that names it. `unknown`: there is no telling whether it was done; ask again, same reference. A wrong key, too
 * many requests or a request that is not understood are of that sort; `says` is what was said, if anything.
 */
export type AcquirerAnswer =
  | { readonly came: 'answer'; readonly answer: CardAnswer }
  | { readonly came: 'refusal'; readonly message: string }
  | { readonly came: 'unknown'; readonly says?: string };

/** What came of putting a card on file. */
export type KeepAnswer =
  | { readonly came: 'answer'; readonly card: CardOnFile & { readonly token: string } }
  | Exclude<AcquirerAnswer, { readonly came: 'answer' }>;

/** Money that goes onto a card that had paid for nothing. */
export interface CreditAsked extends Pick<CardAsked, 'reference' | 'amount' | 'currency'> {
  readonly sealed: string;
}

/** Done, or refused for good, or no telling. */
export type CreditAnswer =
  | { readonly came: 'answer' }
  | Exclude<AcquirerAnswer, { readonly came: 'answer' }>;

export interface Acquirer {
  authorise(asked: CardAsked): Promise<AcquirerAnswer>;
  /** What has become of it; a refusal if there is no such payment. Nothing is charged by asking. */
  find(reference: string): Promise<AcquirerAnswer>;
  /** Undoes whatever there is of it; what comes later under the reference is refused. */
  cancel(reference: string): Promise<AcquirerAnswer>;
  /** Takes what is held, or less of it. */
  capture(reference: string, amount: number): Promise<AcquirerAnswer>;
  /**
   * Gives back some of what was taken. The same refund is the same for ever, however often it is asked for.
   * @param amount Minor units. @returns The payment that it is of; a refusal where it was never taken, or too little.
   */
  refund(reference: string, refund: string, amount: number): Promise<AcquirerAnswer>;
  /** Gives money onto a card. The same reference is the same for ever, however often it is asked for. */
  credit(asked: CreditAsked): Promise<CreditAnswer>;
  /** Lets go of what is held. */
  release(reference: string): Promise<AcquirerAnswer>;
  /**
   * Keeps a card on file for a customer, in place of the one before.
   * @param customer As we call them; nobody else's customer is ever called so.
   */
  keep(customer: string, sealed: string): Promise<KeepAnswer>;
  /** Keeps none for that customer any more. @throws {Error} If nobody answered. */
  forget(customer: string): Promise<void>;
  /** What it says of a day: what it took, gave back and pays out; null if nobody answers. @param day ISO date. */
  report(day: string): Promise<z.infer<typeof reportSchema> | null>;
  /** What cards are sealed with; null if nobody answers. */
  key(): Promise<z.infer<typeof cardKeySchema> | null>;
}

const PATIENCE = 8_000;

const paymentSchema = cardAnswerSchema
  .omit({ acquirer: true })
  .extend({ id: z.string().max(64) })
  .transform(({ id, ...rest }): CardAnswer => ({ ...rest, acquirer: id }));
const keptSchema = cardOnFile.extend({ token: z.string().min(1).max(64) });
const creditSchema = z.object({ state: z.enum(['credited', 'declined']), reason: z.string() });
const refusalSchema = z.object({ code: z.string(), message: z.string() });

/** Refusals that are about the payment or the card itself, by the question; any other may pass. */
const FINAL = {
  find: ['unknown'],
  capture: ['unknown', 'not held'],
  release: ['unknown'],
  // One that is not known may still be on its way, as what was taken with no network is.
  refund: ['not taken', 'too much'],
  credit: ['other', 'wrong'],
  keep: ['card'],
} as const;
const NONE_FINAL: readonly string[] = [];

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
  const askFor = async <T>(
    path: string,
    body: unknown,
    schema: z.ZodType<T>,
    final: readonly string[],
  ): Promise<{ came: 'answer'; answer: T } | Exclude<AcquirerAnswer, { came: 'answer' }>> => {
    try {
      const response = await ask(path, body);
      const value: unknown = await response.json();
      const read = schema.safeParse(value);
      if (response.ok && read.success) return { came: 'answer', answer: read.data };
      const refusal = refusalSchema.safeParse(value);
      if (refusal.success) {
        const { code, message } = refusal.data;
        const isFinal = response.status < 500 && final.includes(code);
        return isFinal ? { came: 'refusal', message } : { came: 'unknown', says: message };
      }
    } catch {
      // Said below: it may or may not have happened.
    }
    return { came: 'unknown' };
  };
  const askPayment = (
    path: string,
    body?: unknown,
    final: readonly string[] = NONE_FINAL,
  ): Promise<AcquirerAnswer> => askFor(path, body, paymentSchema, final);
  return {
    authorise: async (asked) => await askPayment('/payments', asked),
    find: async (reference) =>
      await askPayment(
        `/payments?${new URLSearchParams({ reference }).toString()}`,
        undefined,
        FINAL.find,
      ),
    cancel: async (reference) => await askPayment('/cancel', { reference }),
    capture: async (reference, amount) =>
      await askPayment('/capture', { reference, amount }, FINAL.capture),
    refund: async (reference, refund, amount) =>
      await askPayment('/refund', { reference, refund, amount }, FINAL.refund),
    credit: async (asked) => {
      const said = await askFor('/credit', asked, creditSchema, FINAL.credit);
      if (said.came !== 'answer') return said;
      const { state, reason } = said.answer;
      return state === 'credited' ? { came: 'answer' } : { came: 'refusal', message: reason };
    },
    release: async (reference) => await askPayment('/release', { reference }, FINAL.release),
    keep: async (customer, sealed) => {
      const said = await askFor('/cards', { customer, sealed }, keptSchema, FINAL.keep);
      return said.came === 'answer' ? { came: 'answer', card: said.answer } : said;
    },
    forget: async (customer) => {
      const response = await ask('/cards/forget', { customer });
      if (!response.ok) throw new Error(`the acquirer answered ${String(response.status)}`);
    },
    report: async (day) => {
      try {
        const response = await ask(`/report?${new URLSearchParams({ day }).toString()}`);
        const read = reportSchema.safeParse(await response.json());
        return response.ok && read.success ? read.data : null;
      } catch {
        return null;
      }
    },
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
