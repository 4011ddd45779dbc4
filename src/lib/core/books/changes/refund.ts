import type { EntryOf } from '../../daybook/kinds';
import { sum } from '../../money/units';
import { returnNumber } from '../../sale/sale-number';
import { merge, put, type Change } from '../change';
import { goneTo } from '../names';
import { act } from './acts';
import { saidBy } from './said-by';

export const refundMade = (entry: EntryOf<'refund.made'>): Change[] => {
  const { id, device, body } = entry;
  const { lines, reason, place, saleNumber, day, hour, taxes, money } = body;
  const number = returnNumber(body.deviceNumber, body.number);
  const total = sum(lines.map((line) => line.total));
  return [
    put('refunds', {
      ...{ id, ...saidBy(entry), device, number, saleNumber, reason, day, hour, place },
      ...{ lines, taxes, money, way: money.way, drawer: money.drawer, total },
    }),
    ...(money.card === undefined
      ? []
      : [
          merge('cardRefunds', money.card.refund, 'asked', entry.stamp, {
            // It is of no payment but itself: so the acquirer calls it, and its report.
            ...{ return: id, payment: money.card.refund, way: money.way, amount: money.amount },
            ...{ ...saidBy(entry), device },
          }),
        ]),
    ...lines.flatMap(({ item, isStocked, quantity, to }, at) =>
      item === null || !isStocked || to === 'stock'
        ? []
        : put('movements', {
            ...{ id: `${id}:${String(at)}`, ...saidBy(entry), item },
            ...{ from: place, to: goneTo(to), quantity, reason: to },
            ...{ list: null, amount: 0, note: `${number}: ${reason}`.slice(0, 120) },
          }),
    ),
    act(entry, { what: 'refund.made', about: `${number}: ${reason}`.slice(0, 120), amount: total }),
  ];
};
