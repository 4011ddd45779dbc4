/** A part that is given back: it was taken, it was this much, and it is given back once. */
import type { EntryOf } from '../daybook/kinds';
import { handedBackIn } from '../journal/take-back';
import { reversalBody } from '../sale/give-parts-back';
import type { Evidence } from './evidence';
import { takesBack } from './take-back';
import type { Verdict } from './verdict';

export function judgeReversal(
  entry: EntryOf<'payment.reversed'>,
  { books, people }: Evidence,
): Verdict | null {
  const { id, device, body } = entry;
  const part = books.row('payments', body.payment);
  if (part === undefined) return { code: 'reversal/unknown', found: body.payment };
  const again = books
    .rows('reversals')
    .some((each) => each.payment === body.payment && each.id !== id);
  if (again) return { code: 'reversal/again', found: body.payment };
  const amount = handedBackIn(body.takes);
  const wanted = reversalBody(part, body.reason);
  if (!takesBack(entry, wanted))
    return { code: 'reversal/figures', found: amount, wanted: handedBackIn(wanted.takes) };
  // Its sale stands: that is money given back. What another device took is its own to give back.
  if (books.rows('sales').some(({ slip }) => slip === part.slip))
    return people.lacks(entry, 'refund') ?? { code: 'reversal/rung', found: amount };
  if (part.device === device) return null;
  return people.lacks(entry, part.drawer === null ? 'refund' : 'cash.out');
}
