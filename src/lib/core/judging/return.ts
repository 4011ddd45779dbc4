/** Goods of a sale that came back: there is such a sale, no more than was sold, and by its own figures. */
import type { Row } from '../books/tables';
import type { EntryOf } from '../daybook/kinds';
import { netOf } from '../journal/take-back';
import { FIGURES } from '../journal/posting';
import { standingVoids } from '../loose-end/voided-twice';
import { sum } from '../money/units';
import { paidWith } from '../payment/part-sums';
import { leftOf, returnFigures, soldFrom, takenOff, type SoldSale } from '../sale/return-figures';
import type { Evidence } from './evidence';
import type { Doubt } from './verdict';

export function judgeReturn(entry: EntryOf<'return.made'>, evidence: Evidence): Doubt | null {
  const { books } = evidence;
  const { id, body } = entry;
  const sale = books.row('sales', body.sale);
  if (sale === undefined) return { code: 'return/unknown', found: body.saleNumber };
  const voids = standingVoids(books.rows('voids'), books.rows('voidsUndone'));
  if (voids.some((each) => each.sale === sale.id))
    return { code: 'return/voided', found: sale.number };
  const payments = sale.payments.flatMap((part) => books.row('payments', part) ?? []);
  const sold: SoldSale = {
    sale,
    lines: books.rows('saleLines').filter((each) => each.sale === sale.id),
    payments,
    before: books.rows('returns').filter((each) => each.sale === sale.id && each.id !== id),
  };
  const left = leftOf(sold);
  for (const { line, quantity } of body.lines) {
    const still = left.get(line) ?? 0;
    const isThere = Math.sign(still) === Math.sign(quantity);
    if (!isThere || Math.abs(quantity) > Math.abs(still))
      return { code: 'return/more', found: quantity, wanted: still };
  }
  const wanted = returnFigures(sold, body.lines);
  // Whoever did not know of a return elsewhere rounded otherwise: by no more than one for each of them.
  const most = sold.before.length;
  if (body.slip !== sale.slip || body.soldFrom !== soldFrom(sale) || !isNear(body, wanted, most))
    return { code: 'return/figures', found: takenOff(body), wanted: takenOff(wanted) };
  const given = sum(body.money.map(({ amount, rounding }) => amount - rounding));
  if (given !== Math.max(0, takenOff(body)))
    return { code: 'return/money', found: given, wanted: takenOff(body) };
  const isDrawerless = body.money.some(
    ({ way, drawer }) =>
      (way === 'cash') !== (drawer !== null) ||
      (drawer !== null && books.row('drawers', drawer) === undefined),
  );
  if (isDrawerless) return { code: 'return/drawer', found: sale.number };
  return cardFault(entry, payments, evidence);
}

/** To a card goes back what it paid for this sale, and no more of it than has not gone back. */
function cardFault(
  { body, device }: EntryOf<'return.made'>,
  payments: readonly Row<'payments'>[],
  { books }: Evidence,
): Doubt | null {
  for (const { card, amount, way } of body.money) {
    if (card === null) continue;
    const part = payments.find(({ id }) => id === card.payment);
    const refunds = books.rows('cardRefunds').filter((each) => each.payment === card.payment);
    const gone = sum(
      refunds.flatMap((each) =>
        each.id === card.refund || each.state === 'refused' ? [] : each.amount,
      ),
    );
    // Its id is its own: another's would say that it had been done.
    const known = books.row('cardRefunds', card.refund);
    const isTaken = known !== undefined && known.device !== device;
    if (part === undefined || part.card === null || part.way !== way || isTaken)
      return { code: 'return/card', found: card.payment };
    if (amount > paidWith(part) - gone)
      return { code: 'return/card', found: amount, wanted: paidWith(part) - gone };
  }
  return null;
}

/** Only what the acquirer said to the server of it is so. */
export function judgeRefund(
  { body }: EntryOf<'refund.result'>,
  { books, refunds }: Evidence,
): Doubt | null {
  const row = books.row('cardRefunds', body.refund);
  if (row === undefined || row.payment !== body.payment)
    return { code: 'refund/unknown', found: body.refund };
  const said = refunds.get(body.refund);
  return said === body.state ? null : { code: 'refund/not-so', found: body.state };
}

type Figures = ReturnType<typeof returnFigures>;

/** Posting by posting, and surcharge by surcharge. */
function isNear(body: Figures, wanted: Figures, most: number): boolean {
  if (body.takes.of !== wanted.takes.of) return false;
  const [is, should] = [netOf(body.takes.postings), netOf(wanted.takes.postings)];
  for (const name of new Set([...is.keys(), ...should.keys()]))
    for (const figure of FIGURES) {
      const apart = (is.get(name)?.[figure] ?? 0) - (should.get(name)?.[figure] ?? 0);
      if (Math.abs(apart) > most) return false;
    }
  const charged = ({ surcharges }: Figures, part: string): number =>
    sum(surcharges.flatMap((each) => (each.part === part ? each.amount : [])));
  return [...body.surcharges, ...wanted.surcharges].every(
    ({ part }) => Math.abs(charged(body, part) - charged(wanted, part)) <= most,
  );
}
