/** What devices say of cards; whether it is so, the acquirer is asked afterwards. */
import type { EntryOf } from '../daybook/kinds';
import type { Evidence } from './evidence';
import type { Doubt, Verdict } from './verdict';

/** A reference is one payment of one device, for ever. */
export function judgeAsked(
  { device, body }: EntryOf<'payment.asked'>,
  { books }: Evidence,
): Doubt | null {
  const known = books.row('cardPayments', body.payment);
  const isTaken = books.row('payments', body.payment) !== undefined;
  const isOurs = known === undefined || known.askedStamp === '' || known.device === device;
  return isOurs && !isTaken ? null : { code: 'card/other-device', found: body.payment };
}

/** Something came of a payment that was asked for. */
export function judgeResult(
  { body }: EntryOf<'payment.result'>,
  { books }: Evidence,
): Doubt | null {
  const known = books.row('cardPayments', body.payment);
  return known === undefined || known.askedStamp === ''
    ? { code: 'card/unknown', found: body.payment }
    : null;
}

/** Somebody decided what becomes of money that is held. */
export function judgeHold(
  entry: EntryOf<'hold.decided'>,
  { books, people }: Evidence,
): Verdict | null {
  const { body } = entry;
  const known = books.row('cardPayments', body.payment);
  const isHeld = known?.state === 'authorised' && !known.isReversed;
  if (!isHeld || body.amount > known.resultAmount)
    return { code: 'hold/unknown', found: body.payment };
  // What is not taken of it is given back.
  return body.amount < known.resultAmount ? people.lacks(entry, 'refund') : null;
}
