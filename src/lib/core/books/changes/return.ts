/** Goods of a sale that came back: the fact, and what of it is gone for good. */
import type { EntryOf } from '../../daybook/kinds';
import { takenOff } from '../../sale/return-figures';
import { returnNumber } from '../../sale/sale-number';
import { goneTo } from '../names';
import { merge, put, type Change } from '../change';
import { act } from './acts';
import { saidBy } from './said-by';

export const returnMade = (entry: EntryOf<'return.made'>): Change[] => {
  const { id, device, body } = entry;
  const { lines, takes, surcharges, promotions, money, place, soldFrom } = body;
  const number = returnNumber(body.deviceNumber, body.number);
  const total = takenOff(body);
  return [
    put('returns', {
      ...{ id, ...saidBy(entry), device, number, total },
      ...{ sale: body.sale, saleNumber: body.saleNumber, reason: body.reason },
      ...{ day: body.day, hour: body.hour, place, lines, surcharges, promotions, money },
      takes: takes.postings,
      forSlip: money.flatMap(({ exchange }) => exchange ?? [])[0] ?? null,
    }),
    ...money.flatMap(({ card, way, amount }) =>
      card === null
        ? []
        : merge('cardRefunds', card.refund, 'asked', entry.stamp, {
            ...{ return: id, payment: card.payment, way, amount },
            ...{ ...saidBy(entry), device },
          }),
    ),
    ...lines.flatMap(({ line, to }) => {
      if (to === 'stock') return [];
      const counted = takes.postings.find(
        (posting) => posting.line === line && posting.place === soldFrom,
      );
      if (counted?.item === undefined) return [];
      return put('movements', {
        ...{ id: `${id}:${String(line)}`, ...saidBy(entry), item: counted.item },
        ...{ from: place, to: goneTo(to), quantity: counted.quantity ?? 0, reason: to },
        ...{ list: null, amount: 0, note: `${number}: ${body.reason}`.slice(0, 120) },
      });
    }),
    act(entry, {
      what: 'return.made',
      about: `${body.saleNumber}: ${body.reason}`.slice(0, 120),
      amount: total,
    }),
  ];
};

export const refundResult = ({ at, stamp, body }: EntryOf<'refund.result'>): Change[] => {
  const { refund, state, reason } = body;
  return [merge('cardRefunds', refund, 'result', stamp, { state, reason, resultAt: at })];
};
