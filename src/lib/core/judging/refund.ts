/** A refund without a sale: of goods that there are, taxed as they are, out of a drawer, within what somebody may. */
import type { EntryOf } from '../daybook/kinds';
import { sum } from '../money/units';
import { CASH_WAY } from '../payment/ways';
import { refundMostOf } from '../sale/make-refund';
import { standingVoids } from '../loose-end/voided-twice';
import { heldParts } from '../held/held-account';
import type { Evidence } from './evidence';
import { isAsSetUp } from './goods-as-set-up';
import { numberFault, whereFault } from './given-back';
import { givenOnAccount } from './held';
import { taxDoubt } from './sale-tax';
import type { Doubt } from './verdict';

type Entry = EntryOf<'refund.made'>;

export function judgeRefundMade(entry: Entry, evidence: Evidence): Doubt | null {
  return (
    numberFault(entry, evidence) ??
    whereFault(entry, evidence) ??
    goodsFault(entry, evidence) ??
    taxDoubt(entry, evidence) ??
    moneyFault(entry, evidence) ??
    limitFault(entry, evidence) ??
    saleFault(entry, evidence)
  );
}

function goodsFault({ body, stamp }: Entry, { history }: Evidence): Doubt | null {
  const odd = body.lines.find(
    ({ item, ...line }) =>
      item !== null && !isAsSetUp(line, history.inForce('item.set', item, stamp)),
  );
  return odd === undefined ? null : { code: 'refund/goods', found: odd.name };
}

function moneyFault({ body, stamp }: Entry, evidence: Evidence): Doubt | null {
  const { books, history } = evidence;
  const { way, drawer, account, card } = body.money;
  const isThere = drawer !== null && books.row('drawers', drawer) !== undefined;
  if ((way === CASH_WAY.id) !== isThere) return { code: 'return/drawer', found: way };
  const isKnown = way === CASH_WAY.id || history.inForce('way.set', way, stamp).length > 0;
  if (!isKnown) return { code: 'payment/way', found: way };
  // Nothing of what was never paid goes on a voucher, or off what somebody owes.
  if (account !== undefined && heldParts(account)?.head !== 'credit')
    return { code: 'return/account', found: account };
  const takesCards = ({ method }: { readonly method: string }): boolean => method === 'card';
  if (card !== undefined && !history.inForce('way.set', way, stamp).some(takesCards))
    return { code: 'payment/way', found: way };
  return givenOnAccount(way, account, stamp, evidence);
}

/** All that one person gave back so on a day; whoever lent the right answers for it. */
function limitFault({ id, by, lentBy, stamp, body }: Entry, evidence: Evidence): Doubt | null {
  const { books, people, business } = evidence;
  const who = lentBy ?? by;
  const person = who === null ? undefined : people.at(who, stamp);
  const most = refundMostOf(person, books.row('businesses', business));
  if (most === null) return null;
  const all = sum(
    books
      .rows('refunds')
      .flatMap((row) => (row.by === by && row.day === body.day && row.id !== id ? row.total : [])),
  );
  const total = all + sum(body.lines.map((line) => line.total));
  return total > most ? { code: 'refund/limit', found: total, wanted: most } : null;
}

/** Of a sale whose number was on the receipt: there is one, it stands, and not more than it came to goes back. */
function saleFault({ id, body }: Entry, { books }: Evidence): Doubt | null {
  if (body.saleNumber === '') return null;
  const sale = books.rows('sales').find(({ number }) => number === body.saleNumber);
  if (sale === undefined) return { code: 'refund/no-sale', found: body.saleNumber };
  const voids = standingVoids(books.rows('voids'), books.rows('voidsUndone'));
  if (voids.some((each) => each.sale === sale.id))
    return { code: 'return/voided', found: sale.number };
  const back =
    sum(books.rows('returns').flatMap((row) => (row.sale === sale.id ? row.total : []))) +
    sum(
      books
        .rows('refunds')
        .flatMap((row) => (row.saleNumber === sale.number && row.id !== id ? row.total : [])),
    );
  const left = sale.total + sale.uplift - back;
  const total = sum(body.lines.map((line) => line.total));
  return total > left ? { code: 'refund/more', found: total, wanted: Math.max(0, left) } : null;
}
