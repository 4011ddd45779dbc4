/** What is said to have been booked wrongly: of a sale that stands, by what that moves as the sale stands by then. */
import type { EntryOf } from '../daybook/kinds';
import { FIGURES } from '../journal/posting';
import { netOf } from '../journal/take-back';
import { standingVoids } from '../loose-end/voided-twice';
import { CASH_WAY } from '../payment/ways';
import { fixFault } from '../sale/correct-sale';
import { asCorrected, movesOf } from '../sale/corrections';
import type { Evidence } from './evidence';
import type { Doubt } from './verdict';

export function judgeCorrection(
  entry: EntryOf<'sale.corrected'>,
  evidence: Evidence,
): Doubt | null {
  const { books } = evidence;
  const { id, body } = entry;
  const sale = books.row('sales', body.sale);
  if (sale === undefined) return { code: 'correct/unknown', found: body.saleNumber };
  const voids = standingVoids(books.rows('voids'), books.rows('voidsUndone'));
  if (voids.some((each) => each.sale === sale.id))
    return { code: 'correct/voided', found: sale.number };
  const now = asCorrected(
    {
      sale,
      lines: books.rows('saleLines').filter((line) => line.sale === sale.id),
      payments: sale.payments.flatMap((part) => books.row('payments', part) ?? []),
    },
    books.rows('corrections').filter((each) => each.id !== id),
  );
  const returns = books.rows('returns').filter((each) => each.sale === sale.id);
  const fault = fixFault({ ...now, returns, fix: body.fix });
  if (fault !== null) return { code: 'correct/not-so', found: fault.code };
  const isOfIt = entry.event === sale.event && body.day === sale.day && body.hour === sale.hour;
  if (!isOfIt || !isSame(body.moves, movesOf(now, body.fix)))
    return { code: 'correct/figures', found: sale.number };
  return knownFault(entry, evidence);
}

/** What it names is there. */
function knownFault(
  { body }: EntryOf<'sale.corrected'>,
  { books, history }: Evidence,
): Doubt | null {
  const { fix } = body;
  if (fix.is === 'way') {
    if (fix.way !== CASH_WAY.id && !history.knows('way.set', fix.way))
      return { code: 'payment/way', found: fix.wayName };
    return fix.drawer === null || books.row('drawers', fix.drawer) !== undefined
      ? null
      : { code: 'payment/drawer' };
  }
  if (fix.is === 'item' && !history.knows('item.set', fix.item))
    return { code: 'correct/not-so', found: fix.name };
  if (
    fix.is === 'customer' &&
    fix.customer !== null &&
    !history.knows('customer.set', fix.customer)
  )
    return { code: 'correct/not-so', found: fix.customer };
  return null;
}

function isSame(
  a: EntryOf<'sale.corrected'>['body']['moves'],
  b: ReturnType<typeof movesOf>,
): boolean {
  const [is, should] = [netOf(a), netOf(b)];
  return [...new Set([...is.keys(), ...should.keys()])].every((name) =>
    FIGURES.every((figure) => (is.get(name)?.[figure] ?? 0) === (should.get(name)?.[figure] ?? 0)),
  );
}
