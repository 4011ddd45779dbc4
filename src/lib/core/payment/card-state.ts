/**
 * A card payment, from being asked for to what became of it. A pure state machine; which state a payment is in
 * follows from its row, however the entries came. What is still to be done, what is held and what does not tie up
 * follow from the state.
 *
 *                     ┌─ declined, cancelled ──────────────────────▶ nothing
 *                     │
 *   unheard ─▶ asked ─┼─ carried (no network) ─▶ carried ─ declined ─▶ failed
 *                     │                            │ captured             │
 *                     ├─ captured ────────────────▶ taken ◀─ capture ┐    │
 *                     │                            │                 │    │
 *                     └─ authorised ──────────────────────────────▶ held ─┼─ released, expired ─▶ let go
 *                                                  │                 │    │                        │
 *                     charged, and no part of      └──── the part is given back by an entry ───────┘
 *                     anything ─▶ stray                              │
 *                                                           to give back ─ the acquirer has ─▶ given back
 *
 * `asked` is also where nobody knows whether it was charged: nobody answered, or the browser died. One reference is
 * one payment for ever, so that asking again, sending and undoing can each be done twice without harm.
 */
import type { Row } from '../books/tables';

export type CardPayment = Row<'cardPayments'>;

export type CardState =
  /** Something of it was heard, but not yet that it was asked for. */
  | { readonly is: 'unheard' }
  /** Asked for; what came of it nobody knows. */
  | { readonly is: 'asked' }
  /** It came to nothing and is a part of nothing. */
  | { readonly is: 'nothing' }
  /** Charged, and no part of any payment. */
  | { readonly is: 'stray' }
  /** A part, taken with no network: nobody has been asked whether it is good. */
  | { readonly is: 'carried' }
  /** A part, held until somebody decides or it runs out. Minor units. */
  | {
      readonly is: 'held';
      readonly amount: number;
      readonly expires: string;
      readonly decision: 'capture' | 'release' | null;
    }
  /** A part, charged. Minor units; less than was asked for where only that was approved or taken. */
  | { readonly is: 'taken'; readonly amount: number; readonly isShort: boolean }
  /** A part of which nothing was charged: declined afterwards, or undone at the acquirer alone. */
  | { readonly is: 'failed' }
  /** A part that was held, and is no more. */
  | { readonly is: 'let go' }
  /** Given back in the books; the acquirer has not done so yet. */
  | { readonly is: 'to give back' }
  | { readonly is: 'given back' };

/** What of a card is charged no more, or never was. */
const UNDONE: ReadonlySet<CardPayment['state']> = new Set(['declined', 'cancelled', 'reversed']);
const LET_GO: ReadonlySet<CardPayment['state']> = new Set(['released', 'expired']);

export function cardState(payment: CardPayment): CardState {
  const { askedStamp, takenState, state, isReversed, amount, resultAmount, decision } = payment;
  const isOver = UNDONE.has(state) || LET_GO.has(state);
  if (isReversed) return { is: isOver ? 'given back' : 'to give back' };
  if (takenState === '') {
    if (isOver) return { is: 'nothing' };
    if (askedStamp === '') return { is: 'unheard' };
    return { is: state === '' ? 'asked' : 'stray' };
  }
  if (UNDONE.has(state)) return { is: 'failed' };
  if (LET_GO.has(state)) return { is: 'let go' };
  if (state === '') return { is: 'carried' };
  if (state === 'captured')
    return { is: 'taken', amount: resultAmount, isShort: resultAmount < amount };
  return {
    is: 'held',
    amount: resultAmount,
    expires: payment.expires,
    decision: decision === '' ? null : decision,
  };
}

/** Whether something is still to come of it, or to be done about it. */
export function isOpenCard(payment: CardPayment): boolean {
  switch (cardState(payment).is) {
    case 'unheard':
    case 'asked':
    case 'stray':
    case 'carried':
    case 'held':
    case 'to give back':
      return true;
    case 'nothing':
    case 'taken':
    case 'failed':
    case 'let go':
    case 'given back':
      return false;
  }
}

export const isCarried = (payment: CardPayment): boolean => cardState(payment).is === 'carried';

/** What is held and can still be taken or let go of, the first to run out first. */
export const heldCards = (payments: readonly CardPayment[]): readonly CardPayment[] =>
  payments
    .filter((payment) => cardState(payment).is === 'held')
    .sort((a, b) => (a.expires < b.expires ? -1 : a.expires > b.expires ? 1 : 0));

/** What was decided of money that is still held, or null. */
export function decisionOf(payment: CardPayment): 'capture' | 'release' | null {
  const state = cardState(payment);
  return state.is === 'held' ? state.decision : null;
}

/** What the till still has to tell the acquirer, one after another. */
export type CardErrand =
  /** Asked for and never finished: whatever came of it is undone, and what may still come is refused. */
  | { readonly does: 'cancel'; readonly payment: string; readonly why: 'unfinished' | 'given back' }
  /** Held, and decided: taken, or let go of. */
  | { readonly does: 'capture' | 'release'; readonly payment: string }
  /** Taken with no network: sent under the reference it was asked for with. */
  | {
      readonly does: 'send';
      readonly payment: string;
      readonly amount: number;
      readonly sealed: string;
      readonly voice: string;
    };

/**
 * The errands of a device, oldest first. Doing one twice does no harm, since a reference is one
 * payment for ever; it is done when a result has been written. A card that somebody is just asking for
 * is among them: whoever does the errands must know of that.
 */
export function cardErrands(
  payments: readonly CardPayment[],
  device: string,
  shutOut: ReadonlySet<string> = NOBODY,
): readonly CardErrand[] {
  return payments
    .filter((each) => each.askedStamp !== '')
    .sort((a, b) => (a.askedStamp < b.askedStamp ? -1 : 1))
    .flatMap((each) => cardErrand(each, device, shutOut) ?? []);
}

const NOBODY: ReadonlySet<string> = new Set();

/**
 * What the device still has to tell the acquirer about one payment, as it stands now; null for nothing.
 * @param shutOut Devices that can do nothing any more: what they carried or gave back, others see to, under
 * the same reference.
 */
export function cardErrand(
  payment: CardPayment,
  device: string,
  shutOut: ReadonlySet<string> = NOBODY,
): CardErrand | null {
  const { id, amount, sealed, voice } = payment;
  if (payment.askedStamp === '') return null;
  const isOurs = (whose: string): boolean => whose === device || shutOut.has(whose);
  const state = cardState(payment);
  switch (state.is) {
    case 'held':
      // Whoever decided it sees to it, whichever device had asked for the card.
      return state.decision !== null && isOurs(payment.decidedOn)
        ? { does: state.decision, payment: id }
        : null;
    case 'asked':
    case 'stray':
      return isOurs(payment.device) ? { does: 'cancel', payment: id, why: 'unfinished' } : null;
    case 'to give back':
      return isOurs(payment.device) ? { does: 'cancel', payment: id, why: 'given back' } : null;
    case 'carried':
      return isOurs(payment.device) ? { does: 'send', payment: id, amount, sealed, voice } : null;
    case 'unheard':
    case 'nothing':
    case 'taken':
    case 'failed':
    case 'let go':
    case 'given back':
      return null;
  }
}

/** A card payment that does not tie up: somebody has to see to it. */
export interface CardLooseEnd {
  readonly payment: CardPayment;
  readonly is:
    | 'declined after it was taken'
    | 'approved in part'
    | 'released'
    | 'held too long'
    | 'not sent yet'
    | 'perhaps charged'
    | 'still to be given back';
}

/** What does not tie up about a state, or null. @param now ISO 8601, to know what has been held too long. */
function looseEndOf(state: CardState, now: string): CardLooseEnd['is'] | null {
  switch (state.is) {
    case 'asked':
    case 'stray':
      return 'perhaps charged';
    case 'carried':
      return 'not sent yet';
    case 'held':
      return state.expires < now ? 'held too long' : null;
    case 'taken':
      return state.isShort ? 'approved in part' : null;
    case 'failed':
      return 'declined after it was taken';
    case 'let go':
      return 'released';
    case 'to give back':
      return 'still to be given back';
    case 'unheard':
    case 'nothing':
    case 'given back':
      return null;
  }
}

/**
 * Card payments that do not tie up, oldest first.
 * @param now ISO 8601.
 */
export const cardLooseEnds = (
  payments: readonly CardPayment[],
  now: string,
): readonly CardLooseEnd[] =>
  [...payments]
    .sort((a, b) => (a.askedStamp < b.askedStamp ? -1 : 1))
    .flatMap((payment) => {
      const is = looseEndOf(cardState(payment), now);
      return is === null ? [] : [{ payment, is }];
    });

/**
 * Those that nobody has settled. What was asked for only a moment ago may still be under way.
 * @param since ISO 8601; what was only asked for after that is left out.
 * @param now ISO 8601.
 */
export function openCardEnds(
  payments: readonly CardPayment[],
  settlements: readonly Pick<Row<'settlements'>, 'looseEnd'>[],
  since: string,
  now: string,
): readonly CardLooseEnd[] {
  const settled = new Set(settlements.map(({ looseEnd }) => looseEnd));
  return cardLooseEnds(payments, now).filter(
    ({ payment, is }) =>
      !settled.has(`card:${payment.id}`) && !(is === 'perhaps charged' && payment.at > since),
  );
}
