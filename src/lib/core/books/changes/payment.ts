/** Parts of payments: into the drawer, into the takings by way, into the tips of whoever took them. */
import type { EntryOf } from '../../daybook/kinds';
import { takingsOfPart } from '../../payment/part-sums';
import { add, put, type Change } from '../change';
import { NO_EVENT, NOBODY } from '../tables';
import { act } from './acts';
import { saidBy } from './said-by';

export const paymentTaken = (entry: EntryOf<'payment.taken'>): Change[] => {
  const { drawer, way, charge, surcharge, tip, change, rounding } = entry.body;
  const event = entry.event ?? NO_EVENT;
  const seller = entry.by ?? NOBODY;
  const handed = charge + surcharge + tip;
  return [
    put('payments', { id: entry.id, ...saidBy(entry), device: entry.device, ...entry.body }),
    ...(drawer === null
      ? []
      : [add('drawerSums', { drawer }, { parts: 1, handed, change, rounding })]),
    add(
      'eventWays',
      { event, way },
      { parts: 1, takings: takingsOfPart(entry.body), surcharge, tips: tip },
    ),
    ...(tip === 0 ? [] : [add('eventTips', { event, seller }, { parts: 1, tips: tip })]),
  ];
};

export const paymentReversed = (entry: EntryOf<'payment.reversed'>): Change[] => {
  const { payment, slip, way, drawer, takings, surcharge, tip, amount, reason } = entry.body;
  const event = entry.event ?? NO_EVENT;
  const seller = entry.by ?? NOBODY;
  return [
    put('reversals', {
      id: entry.id,
      ...saidBy(entry),
      device: entry.device,
      payment,
      slip,
      amount,
      reason,
    }),
    act(entry, { what: 'payment.reversed', about: reason.slice(0, 120), amount }),
    ...(drawer === null ? [] : [add('drawerSums', { drawer }, { back: amount })]),
    add(
      'eventWays',
      { event, way },
      { parts: -1, takings: -takings, surcharge: -surcharge, tips: -tip },
    ),
    ...(tip === 0 ? [] : [add('eventTips', { event, seller }, { parts: -1, tips: -tip })]),
  ];
};
