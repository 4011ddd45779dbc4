/** Goods of a sale that came back: there is such a sale, no more than was sold, and by its own figures. */
import type { Row } from '../books/tables';
import type { EntryOf } from '../daybook/kinds';
import { netOf, postingsOf } from '../journal/take-back';
import { FIGURES } from '../journal/posting';
import { standingVoids } from '../loose-end/voided-twice';
import { sum } from '../money/units';
import { paidWith } from '../payment/part-sums';
import { asCorrected } from '../sale/corrections';
import { EXCHANGE } from '../payment/methods';
import {
  leftOf,
  leftValueOf,
  returnFigures,
  soldFrom,
  takenOff,
  type SoldSale,
} from '../sale/return-figures';
import type { HeldAccount } from '../held/held-account';
import { mostOnAccount } from '../sale/make-return';
import type { Evidence } from './evidence';
import { numberFault, whereFault } from './given-back';
import { exchangedBy, exchangedFor } from './exchanged';
import { givenOnAccount } from './held';
import type { Doubt } from './verdict';

type Entry = EntryOf<'return.made'>;

export function judgeReturn(entry: Entry, evidence: Evidence): Doubt | null {
  const { books } = evidence;
  const { id, body } = entry;
  const sale = books.row('sales', body.sale);
  if (sale === undefined) return { code: 'return/unknown', found: body.saleNumber };
  const voids = standingVoids(books.rows('voids'), books.rows('voidsUndone'));
  if (voids.some((each) => each.sale === sale.id))
    return { code: 'return/voided', found: sale.number };
  const asRung = {
    sale,
    lines: books.where('saleLines', 'sale', sale.id),
    payments: sale.payments.flatMap((part) => books.row('payments', part) ?? []),
  };
  const now = asCorrected(asRung, books.rows('corrections'));
  const { payments } = now;
  const sold: SoldSale = {
    ...now,
    before: books.where('returns', 'sale', sale.id).filter((each) => each.id !== id),
  };
  const [left, values] = [leftOf(sold), leftValueOf(sold)];
  for (const { line, quantity, off } of body.lines) {
    const value = values.get(line) ?? 0;
    if (off !== undefined) {
      if (off > value) return { code: 'return/more', found: off, wanted: value };
      continue;
    }
    const still = left.get(line) ?? 0;
    const isThere = Math.sign(still) === Math.sign(quantity);
    if (!isThere || Math.abs(quantity) > Math.abs(still))
      return { code: 'return/more', found: quantity, wanted: still };
  }
  const wanted = returnFigures(sold, body.lines);
  // Whoever did not know of a return elsewhere rounded otherwise: by no more than one for each of them.
  const most = sold.before.length;
  if (
    body.slip !== sale.slip ||
    body.soldFrom !== soldFrom(now.sale) ||
    !isNear(body, wanted, most)
  )
    return { code: 'return/figures', found: takenOff(body), wanted: takenOff(wanted) };
  const given = sum(body.money.map(({ amount, rounding }) => amount - rounding));
  if (given !== Math.max(0, takenOff(body)))
    return { code: 'return/money', found: given, wanted: takenOff(body) };
  return (
    moneyFault(entry, payments, evidence) ??
    whereFault(entry, evidence) ??
    numberFault(entry, evidence)
  );
}

/** Cash out of a drawer that there is, and everything else by a way that paid for the sale. */
function moneyFault(
  entry: Entry,
  payments: readonly Row<'payments'>[],
  evidence: Evidence,
): Doubt | null {
  const onAccounts = new Map<HeldAccount, number>();
  for (const { way, drawer, card, amount, exchange, account } of entry.body.money) {
    if (exchange !== undefined) {
      const fault = exchangeFault({ id: entry.id, way, drawer, amount, exchange }, evidence);
      if (fault !== null) return fault;
      continue;
    }
    const onAccount = givenOnAccount(way, account, entry.stamp, evidence);
    if (onAccount !== null) return onAccount;
    if (account !== undefined) {
      onAccounts.set(account, (onAccounts.get(account) ?? 0) + amount);
      continue;
    }
    const isThere = drawer !== null && evidence.books.row('drawers', drawer) !== undefined;
    if ((way === 'cash') !== isThere) return { code: 'return/drawer', found: way };
    if (way !== 'cash' && card === null && payments.every((part) => part.way !== way))
      return { code: 'return/way', found: way };
  }
  return (
    accountFault(entry, onAccounts, payments, evidence) ?? cardFault(entry, payments, evidence)
  );
}

/** On credit goes any of it; on another account what that had paid for the sale, and no more than has not gone back. */
function accountFault(
  { id, body }: Entry,
  given: ReadonlyMap<HeldAccount, number>,
  payments: readonly Row<'payments'>[],
  { books }: Evidence,
): Doubt | null {
  const before = books.where('returns', 'sale', body.sale).filter((each) => each.id !== id);
  for (const [account, amount] of given) {
    const left = mostOnAccount(account, payments, before);
    if (left !== null && amount > left)
      return { code: 'return/account', found: amount, wanted: left };
  }
  return null;
}

/** What pays for another slip was taken as a part of that slip, and pays for it once. */
function exchangeFault(
  given: {
    readonly id: string;
    readonly way: string;
    readonly drawer: string | null;
    readonly amount: number;
    readonly exchange: string;
  },
  { books }: Evidence,
): Doubt | null {
  if (given.way !== EXCHANGE || given.drawer !== null)
    return { code: 'return/way', found: given.way };
  const paid = exchangedFor(given.exchange, books);
  const others = books.rows('returns').filter(({ id }) => id !== given.id);
  const known = given.amount + exchangedBy(given.exchange, others);
  return known > paid ? { code: 'return/exchange', found: known, wanted: paid } : null;
}

/** To a card goes back what it paid for this sale, and no more of it than has not gone back. */
function cardFault(
  { id, body }: Entry,
  payments: readonly Row<'payments'>[],
  { books }: Evidence,
): Doubt | null {
  const known = books.rows('cardRefunds').filter((each) => each.return !== id);
  const gone = new Map<string, number>();
  for (const { payment, amount, state } of known)
    if (state !== 'refused') gone.set(payment, (gone.get(payment) ?? 0) + amount);
  for (const { card, amount, way } of body.money) {
    if (card === null) continue;
    const part = payments.find((each) => each.id === card.payment);
    if (part === undefined || part.card === null || part.way !== way)
      return { code: 'return/card', found: card.payment };
    const left = paidWith(part) - (gone.get(part.id) ?? 0);
    if (amount > left) return { code: 'return/card', found: amount, wanted: left };
    gone.set(part.id, (gone.get(part.id) ?? 0) + amount);
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
  const all = ({ takes, promotions }: Figures) =>
    netOf([...takes.postings, ...postingsOf(promotions)]);
  const [is, should] = [all(body), all(wanted)];
  const parts = new Set(wanted.promotions.map(({ of }) => of));
  if (body.promotions.some(({ of }) => !parts.has(of))) return false;
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
