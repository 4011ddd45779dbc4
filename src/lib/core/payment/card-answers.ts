/** What follows from what the acquirer says of a card. */
import type { BodyOf } from '../daybook/kinds';
import { clipped, type CardAnswer } from './card-messages';
import type { CardErrand, CardPayment } from './card-state';

/** What a seller who waits at the counter does next. */
export type AfterAsking =
  /** It is a part of the payment. */
  | { readonly then: 'take'; readonly state: 'captured' | 'authorised' }
  /** It came to nothing, for certain. */
  | { readonly then: 'close'; readonly reason: string }
  /** Less was approved than is owed: it is left, so that it is undone by itself. Minor units. */
  | { readonly then: 'leave'; readonly approved: number };

/** @param asked Minor units that the card was asked for in all. */
export function afterAsking(asked: number, { state, amount, reason }: CardAnswer): AfterAsking {
  if (state !== 'captured' && state !== 'authorised') return { then: 'close', reason };
  return amount < asked ? { then: 'leave', approved: amount } : { then: 'take', state };
}

/** A card that came to nothing, for certain. @param reason Cut to what can be written down. */
export const closedCard = (
  payment: string,
  state: 'declined' | 'cancelled',
  reason: string,
): BodyOf<'payment.result'> => ({
  payment,
  state,
  amount: 0,
  approval: '',
  acquirer: '',
  reason: clipped(reason),
});

/**
 * What a hold has come to that the acquirer can neither take nor release any more: past its time it has run
 * out. Null while there is no telling.
 * @param now ISO 8601.
 */
export const endedHold = (
  { id, expires }: Pick<CardPayment, 'id' | 'expires'>,
  now: string,
  reason: string,
): BodyOf<'payment.result'> | null =>
  expires !== '' && expires < now
    ? {
        payment: id,
        state: 'expired',
        amount: 0,
        approval: '',
        acquirer: '',
        reason: clipped(reason),
      }
    : null;

/** How the end of an errand is written down. */
export function resultOf(errand: CardErrand, answer: CardAnswer): BodyOf<'payment.result'> {
  const { state, amount, approval, acquirer, reason } = answer;
  const isShort = errand.does === 'send' && state === 'captured' && amount < errand.amount;
  return {
    payment: errand.payment,
    state: state === 'authorised' ? 'captured' : state,
    amount,
    approval,
    acquirer,
    // The goods have gone: the books count what was taken, and the rest is a loose end.
    reason: isShort ? 'only part of it was approved' : reason,
  };
}

/** Why what is held is not taken: at most what is held can be. Minor units. */
export interface HeldRefusal {
  readonly code: 'held/not-an-amount';
  readonly most: number;
}

/**
 * How much of what is held is to be taken.
 * @param amount Minor units; null is all of it.
 */
export function takeHeld(
  { amount: most }: Pick<CardPayment, 'amount'>,
  amount: number | null,
):
  | { readonly ok: true; readonly amount: number }
  | { readonly ok: false; readonly refusal: HeldRefusal } {
  const asked = amount ?? most;
  return Number.isSafeInteger(asked) && asked > 0 && asked <= most
    ? { ok: true, amount: asked }
    : { ok: false, refusal: { code: 'held/not-an-amount', most } };
}

/**
 * What has become of a card that was held, as the acquirer says it, whatever was asked for: another
 * device may have been first. Null while it is still held.
 * @param held Minor units that were held.
 */
export function heldResult(
  payment: string,
  held: number,
  answer: CardAnswer,
): BodyOf<'payment.result'> | null {
  const { state, amount, approval, acquirer } = answer;
  if (state === 'authorised') return null;
  const isShort = state === 'captured' && amount < held;
  // A reason is what the rest is found by: what was not taken of a sale is still owed.
  const reason = isShort ? answer.reason || 'only part of it was taken' : answer.reason;
  return { payment, state, amount, approval, acquirer, reason };
}
