/** A sale: the facts of it. What it adds to sums is in the journal. */
import type { EntryOf } from '../../daybook/kinds';
import { sum } from '../../money/units';
import { thingsOf, upliftTaxesOf } from '../../journal/sale';
import { takingsIn } from '../../journal/take-back';
import { saleNumber } from '../../sale/sale-number';
import { merge, put, type Change } from '../change';
import { act } from './acts';
import { vouchersSold } from './held';
import { saidBy } from './said-by';

type Sale = EntryOf<'sale.rung'>;
type Line = Sale['body']['lines'][number];

export const saleRung = (entry: Sale): Change[] => {
  const { id, device, body } = entry;
  const { slip, day, hour, lines, taxes, total, payments, note, service, uplift } = body;
  const upliftTax = sum(Object.values(uplift?.tax ?? {}));
  const number = saleNumber(body.deviceNumber, body.number);
  return [
    put('sales', {
      id,
      ...saidBy(entry),
      device,
      slip,
      number,
      day,
      hour,
      units: sum(
        lines.flatMap(({ unit, quantity, account }) =>
          account === undefined ? thingsOf(unit, quantity) : [],
        ),
      ),
      total,
      tax:
        sum([...taxes, ...lines.flatMap(({ kept }) => kept ?? [])].map(({ amount }) => amount)) +
        upliftTax,
      taxes,
      payments,
      note,
      customer: body.customer ?? null,
      standingName: body.standingName ?? '',
      service: service?.total ?? 0,
      serviceTax: sum(Object.values(service?.tax ?? {})),
      uplift: uplift?.total ?? 0,
      upliftTaxes: upliftTaxesOf(uplift),
      place: body.place,
      isUpliftWaived: body.isUpliftWaived === true,
      earned: body.earned ?? null,
      paidIn: sum(lines.flatMap((line) => (line.account === undefined ? [] : line.total))),
    }),
    ...actOf(entry, number),
    ...lines.map((line, at) => lineOf(entry, line, at)),
    ...vouchersSold(entry),
  ];
};

/** An entry is one act; of a changed price and a discount the price is told, with all that was off. */
function actOf(entry: Sale, number: string): Change[] {
  const { lines } = entry.body;
  const changed = lines.find(({ listPrice }) => listPrice !== undefined);
  const discount = sum(lines.map((line) => line.discount));
  if (changed !== undefined) {
    const about = `${number}: ${changed.name}, ${changed.reason ?? ''}`.slice(0, 120);
    return [act(entry, { what: 'price.changed', about, amount: changed.price })];
  }
  return discount === 0
    ? []
    : [act(entry, { what: 'discount.given', about: number, amount: discount })];
}

/**
 * Which debt it pays stands with what moves on the account. Field by field: most of what a server does for a sale
 * is lines, and taking a field out of an object costs it several times all of this.
 */
function lineOf(entry: Sale, line: Line, at: number): Change {
  const { item, name, detail, unit, quantity, price, gross, discount, net, tax } = line;
  return put('saleLines', {
    item,
    name,
    detail,
    unit,
    quantity,
    price,
    gross,
    discount,
    net,
    tax,
    sale: entry.id,
    line: at,
    event: entry.event,
    total: line.total,
    cost: line.cost,
    isStocked: line.isStocked,
    extras: line.extras ?? [],
    listPrice: line.listPrice ?? null,
    reason: line.reason ?? '',
    note: line.note ?? '',
    seller: line.seller ?? null,
    maker: line.maker ?? null,
    tag: line.tag ?? '',
    standing: line.standing ?? 0,
    account: line.account ?? null,
    until: line.until ?? '',
    kept: line.kept ?? null,
    ordered: line.ordered ?? null,
    points: line.points ?? 0,
    toward: line.toward ?? {},
  });
}

/** A voided sale: what it had brought is taken off by its postings; cards are to be given back. */
export const saleVoided = (entry: EntryOf<'sale.voided'>): Change[] => {
  const { id, device, stamp, body } = entry;
  const { sale, number, reason, takes, cards } = body;
  return [
    put('voids', { id, ...saidBy(entry), device, lentBy: entry.lentBy ?? null, sale, reason }),
    act(entry, {
      what: 'sale.voided',
      about: `${number}: ${reason}`.slice(0, 120),
      amount: takingsIn(takes),
    }),
    ...cards.map((payment) =>
      merge('cardPayments', payment, 'reversed', stamp, { isReversed: true }),
    ),
  ];
};

/** One of two voids is taken back. The card stays given back. */
export const voidUndone = (entry: EntryOf<'void.undone'>): Change[] => {
  const { id, body } = entry;
  const { sale, number, reason, takes } = body;
  return [
    put('voidsUndone', { id, ...saidBy(entry), void: body.void, sale, reason }),
    act(entry, {
      what: 'void.undone',
      about: `${number}: ${reason}`.slice(0, 120),
      amount: takingsIn(takes),
    }),
  ];
};
