/** What follows from what the acquirer says of a card. */
import type { BodyOf } from '../daybook/kinds';
import type { CardAnswer } from './card-messages';
import type { CardErrand } from './carry';

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
