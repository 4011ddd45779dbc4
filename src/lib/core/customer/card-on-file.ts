/** Keeping a customer's card on file, and taking it off: commands, and whether it can be charged. */
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft, privateDraft } from '../daybook/kinds';
import type { CardOnFile } from '../daybook/kinds/customer-card';
import type { ConsentWay } from '../daybook/kinds/customer-consent';

export interface KeepCard {
  readonly newId: () => string;
  /** Random text, at least 16 characters. */
  readonly newSalt: () => string;
  readonly customer: string;
  /** As the acquirer keeps it. */
  readonly card: CardOnFile;
  /** How the customer agreed that it may be kept and charged; null if nobody has asked them. */
  readonly consent: ConsentWay | null;
}

export type KeepCardOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: { readonly code: 'card-on-file/no-consent' } };

/** Puts a card on file, in place of the one that was there. Not without the customer's consent. */
export function keepCard({ newId, newSalt, customer, card, consent }: KeepCard): KeepCardOutcome {
  if (consent === null) return { ok: false, refusal: { code: 'card-on-file/no-consent' } };
  const body = { customer, consent };
  return { ok: true, drafts: [privateDraft('customer.card', newId(), body, newSalt(), card)] };
}

export const takeCardOff = (
  newId: () => string,
  customer: string,
): { readonly ok: true; readonly drafts: readonly Draft[] } => ({
  ok: true,
  drafts: [draft('customer.card', newId(), null, { customer, consent: null })],
});

type Cards = Pick<Row<'customers'>, 'cardScheme' | 'cardLast4' | 'cardExpiry' | 'isErased'>;

/** The card that a customer has on file, or null. */
export const cardOf = (customer: Cards | undefined): CardOnFile | null =>
  customer === undefined || customer.cardLast4 === '' || customer.isErased
    ? null
    : {
        scheme: customer.cardScheme,
        last4: customer.cardLast4,
        expiry: customer.cardExpiry,
      };

/** Which of somebody's records has a card on file: the one they go by, else another; the first where none has. */
export const cardHolder = <R extends Cards>(rows: readonly R[]): R | undefined =>
  rows.find((row) => cardOf(row) !== null) ?? rows[0];

/** @param today ISO date; a card holds to the end of its month. */
export const hasExpired = ({ expiry }: CardOnFile, today: string): boolean =>
  expiry < today.slice(0, 7);
