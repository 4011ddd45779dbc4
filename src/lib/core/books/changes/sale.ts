/** A sale: the facts of it, and what it adds to every sum it counts in. */
import type { EntryOf } from '../../daybook/kinds';
import { sum } from '../../money/units';
import { costOf } from '../../sale/cost';
import { saleNumber } from '../../sale/sale-number';
import { add, put, type Change } from '../change';
import { GONE_SOLD, NO_EVENT, UNLISTED } from '../tables';
import { moved } from './stock';
import { act } from './acts';
import { saidBy } from './said-by';

type Sale = EntryOf<'sale.rung'>;
type Line = Sale['body']['lines'][number];

export const saleRung = (entry: Sale): Change[] => {
  const { id, device, body } = entry;
  const event = entry.event ?? NO_EVENT;
  const { slip, day, hour, lines, taxes, total, payments, note } = body;
  const tax = sum(taxes.map(({ amount }) => amount));
  const units = sum(lines.map(unitsOf));
  const cost = sum(lines.map((line) => costOf(line) ?? 0));
  const number = saleNumber(body.deviceNumber, body.number);
  const discount = sum(lines.map((line) => line.discount));
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
    }),
    ...(discount === 0
      ? []
      : [act(entry, { what: 'discount.given', about: number, amount: discount })]),
    ...lines.flatMap((line, at) => lineChanges(entry, line, at)),
    add('eventTotals', { event }, { sales: 1, takings: total, tax, units, cost }),
    add('eventHours', { event, day, hour }, { sales: 1, takings: total }),
    ...taxes.map(({ id: taxId, rate, base, amount }) =>
      add('eventTaxes', { event, tax: taxId, rate }, { base, amount }),
    ),
  ];
};

function lineChanges(entry: Sale, line: Line, at: number): Change[] {
  const { item, quantity, total, isStocked, ...facts } = line;
  const taxed = sum(Object.values(line.tax));
  return [
    put('saleLines', {
      sale: entry.id,
      line: at,
      event: entry.event,
      item,
      quantity,
      total,
      ...facts,
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
