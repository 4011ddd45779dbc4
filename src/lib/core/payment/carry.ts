/**
 * Cards with no network: how much risk a device may carry, and what is still to be done about cards.
 * Nobody has been asked yet whether such a card is good; the vendor sets how far that may go.
 */
import type { Carry, Row } from '../books/tables';
import { sum } from '../money/units';

export type CardPayment = Row<'cardPayments'>;

const HOUR = 3_600_000;

/** Whether it was taken with no network and nobody has been asked about it yet. */
export const isCarried = ({ takenState, state, isReversed }: CardPayment): boolean =>
  takenState === 'deferred' && state === '' && !isReversed;

/** Whether something is still to come of it, or to be done about it. */
export const isOpenCard = ({ state, isReversed }: CardPayment): boolean =>
  state === '' || state === 'authorised' || (isReversed && !isUndone(state));

const isUndone = (state: string): boolean =>
  state === 'declined' || state === 'cancelled' || state === 'reversed';

/** What a device carries, over all events: the risk is one. Minor units. */
export interface Carried {
  readonly amount: number;
  readonly count: number;
  /** ISO 8601 of the oldest of them, or null. */
  readonly since: string | null;
}

export function carriedBy(payments: readonly CardPayment[], device: string): Carried {
  const own = payments.filter((each) => each.device === device && isCarried(each));
  const times = own.map(({ at }) => at).sort();
  return {
    amount: sum(own.map(({ amount }) => amount)),
    count: own.length,
    since: times[0] ?? null,
  };
}

/** Why a card cannot be carried. All but the first can be gone over by somebody with the right to it. */
export type CarryRefusal =
  | { readonly code: 'carry/none' }
  /** Typed in: with no network only with an approval that was given by voice. */
  | { readonly code: 'carry/needs-voice' }
  /** On file: only the acquirer knows whether it still is. */
  | { readonly code: 'carry/on-file' }
  | { readonly code: 'carry/too-much'; readonly most: number }
  | { readonly code: 'carry/over'; readonly most: number; readonly carried: number }
  | { readonly code: 'carry/too-old'; readonly hours: number };

/**
 * Whether a card of this amount may be carried on top of what is carried already.
 * @param amount Minor units that the card would be charged in all.
 * @param now Milliseconds since 1970.
 * @returns Null where it may.
 */
export function carryRefusal(
  limits: Carry | null,
  carried: Carried,
  amount: number,
  now: number,
): CarryRefusal | null {
  if (limits === null) return { code: 'carry/none' };
  if (amount > limits.perPayment) return { code: 'carry/too-much', most: limits.perPayment };
  if (carried.amount + amount > limits.perDevice)
    return { code: 'carry/over', most: limits.perDevice, carried: carried.amount };
  if (carried.since !== null && now - Date.parse(carried.since) > limits.hours * HOUR)
    return { code: 'carry/too-old', hours: limits.hours };
  return null;
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
  const { id, amount, sealed, voice, state, takenState, isReversed } = payment;
  if (payment.askedStamp === '') return null;
  const isOurs = (whose: string): boolean => whose === device || shutOut.has(whose);
  // Whoever decided it sees to it, whichever device had asked for the card.
  const decided = decisionOf(payment);
  if (decided !== null && isOurs(payment.decidedOn)) return { does: decided, payment: id };
  if (!isOurs(payment.device)) return null;
  if (isReversed)
    return isUndone(state) ? null : { does: 'cancel', payment: id, why: 'given back' };
  if (state !== '') return null;
  if (takenState === 'deferred') return { does: 'send', payment: id, amount, sealed, voice };
  return takenState === '' ? { does: 'cancel', payment: id, why: 'unfinished' } : null;
}

/** What was decided of money that is still held, or null. */
export const decisionOf = ({
  state,
  decision,
  isReversed,
}: CardPayment): 'capture' | 'release' | null =>
  state === 'authorised' && !isReversed && (decision === 'capture' || decision === 'release')
    ? decision
    : null;

/** A card payment that does not tie up: somebody has to see to it. */
export type CardLooseEnd = { readonly payment: CardPayment } & (
  | { readonly is: 'declined after it was taken' }
  | { readonly is: 'approved in part' }
  | { readonly is: 'released' }
  | { readonly is: 'held too long' }
  | { readonly is: 'not sent yet' }
  | { readonly is: 'perhaps charged' }
  | { readonly is: 'still to be given back' }
);

/** What is held and can still be taken or let go of, the first to run out first. */
export const heldCards = (payments: readonly CardPayment[]): readonly CardPayment[] =>
  payments
    .filter(({ state, isReversed }) => state === 'authorised' && !isReversed)
    .sort((a, b) => (a.expires < b.expires ? -1 : a.expires > b.expires ? 1 : 0));

/**
 * Card payments that do not tie up, oldest first.
 * @param now ISO 8601, to know what has been held too long.
 */
export function cardLooseEnds(
  payments: readonly CardPayment[],
  now: string,
): readonly CardLooseEnd[] {
  return [...payments]
    .sort((a, b) => (a.askedStamp < b.askedStamp ? -1 : 1))
    .flatMap((payment): CardLooseEnd[] => {
      const { takenState, state, isReversed } = payment;
      if (isReversed) return isUndone(state) ? [] : [{ payment, is: 'still to be given back' }];
      if (takenState === '') return state === '' ? [{ payment, is: 'perhaps charged' }] : [];
      if (isUndone(state)) return [{ payment, is: 'declined after it was taken' }];
      if (state === 'released' || state === 'expired') return [{ payment, is: 'released' }];
      if (state === 'authorised')
        return payment.expires < now ? [{ payment, is: 'held too long' }] : [];
      if (isCarried(payment)) return [{ payment, is: 'not sent yet' }];
      const isShort = state === 'captured' && payment.resultAmount < payment.amount;
      return isShort ? [{ payment, is: 'approved in part' }] : [];
    });
}

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
