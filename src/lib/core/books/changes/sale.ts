/** A sale: the facts of it, and what it adds to every sum it counts in. */
import type { EntryOf } from '../../daybook/kinds';
import { sum } from '../../money/units';
import { costOf } from '../../sale/cost';
import { saleNumber } from '../../sale/sale-number';
import { add, merge, put, type Change } from '../change';
import { GONE_SOLD, NO_EVENT, NOBODY, SERVICE, UNLISTED, UPLIFT, type Taxed } from '../tables';
import { moved } from './stock';
import { act } from './acts';
import { saidBy } from './said-by';

type Sale = EntryOf<'sale.rung'>;
type Line = Sale['body']['lines'][number];

export const saleRung = (entry: Sale): Change[] => {
  const { id, device, body } = entry;
  const event = entry.event ?? NO_EVENT;
  const { slip, day, hour, lines, taxes, total, payments, note, service, uplift } = body;
  const upliftTax = sum(Object.values(uplift?.tax ?? {}));
  const tax = sum(taxes.map(({ amount }) => amount)) + upliftTax;
  const takings = total + (uplift?.total ?? 0);
  const units = sum(lines.map(unitsOf));
  const cost = sum(lines.map((line) => costOf(line) ?? 0));
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
      units,
      total,
      tax,
      taxes,
      payments,
      note,
      customer: body.customer ?? null,
      standingName: body.standingName ?? '',
      service: service?.total ?? 0,
      serviceTax: sum(Object.values(service?.tax ?? {})),
      uplift: uplift?.total ?? 0,
      upliftTaxes: taxedIn(uplift),
      place: body.place,
      isUpliftWaived: body.isUpliftWaived === true,
    }),
    ...actOf(entry, number),
    ...lines.flatMap((line, at) => lineChanges(entry, line, at)),
    ...chargeChanges(event, SERVICE, service),
    ...chargeChanges(event, UPLIFT, uplift),
    add('eventTotals', { event }, { sales: 1, takings, tax, units, cost }),
    add('eventHours', { event, day, hour }, { sales: 1, takings }),
    ...taxes.map(({ id: taxId, rate, base, amount }) =>
      add('eventTaxes', { event, tax: taxId, rate }, { base, amount }),
    ),
    ...upliftTaxes(entry),
  ];
};

type Charge = NonNullable<Sale['body']['service']>;

/** What is charged beside the goods stands among them, under a name of its own. */
const chargeChanges = (event: string, item: string, charge: Charge | undefined): Change[] =>
  charge === undefined
    ? []
    : [
        add(
          'eventItems',
          { event, item },
          { takings: charge.total, tax: sum(Object.values(charge.tax)) },
        ),
      ];

/** The taxes on what cards paid above the cash price, by tax. */
function taxedIn(uplift: Sale['body']['uplift']): Readonly<Record<string, Taxed>> {
  if (uplift === undefined) return {};
  const ids = [...new Set([...Object.keys(uplift.tax), ...Object.keys(uplift.base)])].sort();
  return Object.fromEntries(
    ids.map((id) => [id, { base: uplift.base[id] ?? 0, amount: uplift.tax[id] ?? 0 }]),
  );
}

/** What they add to the taxes of the event, at the rates of the sale. */
function upliftTaxes({ event, body }: Sale): Change[] {
  const above = taxedIn(body.uplift);
  return body.taxes.flatMap(({ id, rate }) => {
    const taxed = above[id];
    if (taxed === undefined) return [];
    const { base, amount } = taxed;
    return [add('eventTaxes', { event: event ?? NO_EVENT, tax: id, rate }, { base, amount })];
  });
}

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

function lineChanges(entry: Sale, line: Line, at: number): Change[] {
  const { item, quantity, total, isStocked, ...facts } = line;
  const taxed = sum(Object.values(line.tax));
  return [
    put('saleLines', {
      ...facts,
      sale: entry.id,
      line: at,
      event: entry.event,
      item,
      quantity,
      total,
      extras: line.extras ?? [],
      listPrice: line.listPrice ?? null,
      reason: line.reason ?? '',
      note: line.note ?? '',
      seller: line.seller ?? null,
      maker: line.maker ?? null,
      tag: line.tag ?? '',
      standing: line.standing ?? 0,
      isStocked,
    }),
    add(
      'eventItems',
      { event: entry.event ?? NO_EVENT, item: item ?? UNLISTED },
      { quantity, takings: total, tax: taxed },
    ),
    ...(item !== null && isStocked ? moved(item, entry.body.place, GONE_SOLD, quantity) : []),
  ];
}

/** How many things a line is: what is weighed or timed is one thing. Never below minus the lot. */
function unitsOf({ unit, quantity }: Line): number {
  return unit === '' ? Math.trunc(quantity / 1000) : Math.sign(quantity);
}

/** A voided sale takes off whatever it had brought. */
export const saleVoided = (entry: EntryOf<'sale.voided'>): Change[] => {
  const { id, device, stamp, body } = entry;
  const { sale, number, reason, takings } = body;
  return [
    put('voids', { id, ...saidBy(entry), device, lentBy: entry.lentBy ?? null, sale, reason }),
    act(entry, {
      what: 'sale.voided',
      about: `${number}: ${reason}`.slice(0, 120),
      amount: takings,
    }),
    ...takenOff(entry.event, body, 1),
    ...body.parts.flatMap((part): Change[] =>
      part.isCard
        ? [merge('cardPayments', part.payment, 'reversed', stamp, { isReversed: true })]
        : [],
    ),
  ];
};

/** One of two voids is taken back: what it took off is there again. The card stays given back. */
export const voidUndone = (entry: EntryOf<'void.undone'>): Change[] => {
  const { id, body } = entry;
  const { sale, number, reason, takings } = body;
  return [
    put('voidsUndone', { id, ...saidBy(entry), void: body.void, sale, reason }),
    act(entry, {
      what: 'void.undone',
      about: `${number}: ${reason}`.slice(0, 120),
      amount: takings,
    }),
    ...takenOff(entry.event, body, -1),
  ];
};

/** What a void takes off each sum, or, with -1, puts back. */
function takenOff(
  of: string | null,
  body: Omit<EntryOf<'sale.voided'>['body'], 'reason'>,
  times: 1 | -1,
): Change[] {
  const event = of ?? NO_EVENT;
  const { place, day, hour, units, takings, tax, cost } = body;
  // Not -0, which is another number to some.
  const off = (figure: number): number => (figure === 0 ? 0 : -times * figure);
  return [
    add(
      'eventTotals',
      { event },
      { sales: off(1), takings: off(takings), tax: off(tax), units: off(units), cost: off(cost) },
    ),
    add('eventHours', { event, day, hour }, { sales: off(1), takings: off(takings) }),
    ...body.items.flatMap(({ item, quantity, takings: brought, tax: taxed, isStocked }) => [
      add(
        'eventItems',
        { event, item },
        { quantity: off(quantity), takings: off(brought), tax: off(taxed) },
      ),
      ...(isStocked ? moved(item, GONE_SOLD, place, -off(quantity)) : []),
    ]),
    ...body.taxes.map(({ tax: taxId, rate, base, amount }) =>
      add('eventTaxes', { event, tax: taxId, rate }, { base: off(base), amount: off(amount) }),
    ),
    ...body.parts.flatMap((part): Change[] => [
      add(
        'eventWays',
        { event, way: part.way },
        {
          parts: off(1),
          takings: off(part.takings),
          surcharge: off(part.surcharge),
          tips: off(part.tip),
        },
      ),
      ...(part.drawer === null
        ? []
        : [add('drawerSums', { drawer: part.drawer }, { back: -off(part.amount) })]),
      ...(part.tip === 0
        ? []
        : [
            add(
              'eventTips',
              { event, seller: part.seller ?? NOBODY },
              { parts: off(1), tips: off(part.tip) },
            ),
          ]),
    ]),
  ];
}
