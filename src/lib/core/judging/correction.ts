/** What is said to have been booked wrongly: of a sale that stands, by what that moves as the sale stands by then. */
import type { EntryOf } from '../daybook/kinds';
import { FIGURES } from '../journal/posting';
import { netOf } from '../journal/take-back';
import { standingVoids } from '../loose-end/voided-twice';
import { CASH_WAY } from '../payment/ways';
import { couldBe, fixFault } from '../sale/correct-sale';
import type { Fix } from '../daybook/kinds/sale-corrected';
import { asCorrected, eventsOf, isSameMove, movesOf, type Correctable } from '../sale/corrections';
import type { Evidence } from './evidence';
import { isAsSetUp } from './goods-as-set-up';
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
  const all = books.rows('corrections').filter((each) => each.id !== id);
  // What is said of it at the other events is the same thing.
  const same = all.filter((each) => isSameMove(each.fix, body.fix));
  const others = all.filter((each) => !same.includes(each));
  const now = asCorrected(
    {
      sale,
      lines: books.where('saleLines', 'sale', sale.id),
      payments: sale.payments.flatMap((part) => books.row('payments', part) ?? []),
    },
    others,
  );
  const returns = books.where('returns', 'sale', sale.id);
  const fault = fixFault({ ...now, returns, fix: body.fix });
  if (fault !== null) return { code: 'correct/not-so', found: fault.code };
  if (same.some((each) => each.event === entry.event || !isAlike(each.fix, body.fix)))
    return { code: 'correct/not-so', found: 'correct/same' };
  const isThere = eventsOf(now, body.fix).includes(entry.event);
  const isThen = body.day === sale.day && body.hour === sale.hour;
  if (!isThere || !isThen || !isSame(body.moves, movesOf(now, body.fix, entry.event)))
    return { code: 'correct/figures', found: sale.number };
  return knownFault(entry, now.lines, evidence);
}

const isAlike = (a: Fix, b: Fix): boolean =>
  a.is === 'event' && b.is === 'event' && a.to === b.to && a.cash === b.cash;

/** What it names is there, and is as it says. */
function knownFault(
  { stamp, body }: EntryOf<'sale.corrected'>,
  lines: Correctable['lines'],
  { books, history, people }: Evidence,
): Doubt | null {
  const { fix } = body;
  const notSo = (found: string): Doubt => ({ code: 'correct/not-so', found });
  switch (fix.is) {
    case 'way': {
      const ways = history.inForce('way.set', fix.way, stamp);
      const isThere =
        ways.some(({ method }) => method === fix.method) ||
        (fix.way === CASH_WAY.id && fix.method === CASH_WAY.method);
      if (!isThere) return { code: 'payment/way', found: fix.wayName };
      return fix.drawer === null || books.row('drawers', fix.drawer) !== undefined
        ? null
        : { code: 'payment/drawer' };
    }
    case 'item': {
      const items = history.inForce('item.set', fix.item, stamp);
      const line = lines.find((each) => each.line === fix.line);
      const isAlike = line !== undefined && items.some((item) => couldBe(line, item));
      return isAlike && isAsSetUp(fix, items) ? null : notSo(fix.name);
    }
    case 'customer':
      return fix.customer === null || history.knows('customer.set', fix.customer)
        ? null
        : notSo(fix.customer);
    case 'seller':
      return fix.seller === null || people.at(fix.seller, stamp) !== undefined
        ? null
        : notSo(fix.seller);
    case 'event': {
      if (!history.knows('event.set', fix.to)) return notSo(fix.to);
      return fix.cash === null || books.row('drawers', fix.cash)?.event === fix.to
        ? null
        : { code: 'payment/drawer' };
    }
    case 'change':
      return null;
  }
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
