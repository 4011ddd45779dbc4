/**
 * Cards with no network: how much risk a device may carry. Nobody has been asked yet whether such a card is
 * good; the vendor sets how far that may go.
 */
import type { Carry } from '../books/tables';
import { sum } from '../money/units';
import { isCarried, type CardPayment } from './card-state';

const HOUR = 3_600_000;

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
