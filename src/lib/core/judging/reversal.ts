/** A part that is given back: it was taken, it was this much, and it is given back once. */
import type { EntryOf } from '../daybook/kinds';
import { paidWith, takingsOfPart } from '../payment/part-sums';
import type { Evidence } from './evidence';
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
  const side = part.side === 'card' ? 'card' : 'cash';
  const isSame =
    body.slip === part.slip &&
    body.way === part.way &&
    body.drawer === part.drawer &&
    body.clears === part.clears &&
    body.takings === takingsOfPart({ ...part, side }) &&
    body.surcharge === part.surcharge &&
    body.tip === part.tip &&
    (body.seller === undefined
      ? entry.by === part.by || body.tip === 0
      : body.seller === part.by) &&
    body.amount === paidWith(part) &&
    body.isCard === (part.card !== null);
  if (!isSame) return { code: 'reversal/figures', found: body.amount, wanted: paidWith(part) };
  // Its sale stands: that is money given back. What another device took is its own to give back.
  if (books.rows('sales').some(({ slip }) => slip === part.slip))
    return people.lacks(entry, 'refund') ?? { code: 'reversal/rung', found: body.amount };
  if (part.device === device) return null;
  return people.lacks(entry, part.drawer === null ? 'refund' : 'cash.out');
}
