/** Orders of customers: what was agreed, how far the goods are, what was paid where they were made. */
import type { EntryOf } from '../../daybook/kinds';
import { merge, put, type Change } from '../change';
import { act } from './acts';
import { saidBy } from './said-by';

export const orderSet = (entry: EntryOf<'order.set'>): Change[] => {
  const { id, ...said } = entry.body;
  return [
    merge('orders', id, 'set', entry.stamp, { ...said, ...saidBy(entry), device: entry.device }),
  ];
};

/** What was noted may be personal, and goes with whom it is of. */
export const orderTerms = (entry: EntryOf<'order.terms'>): Change[] => {
  const { order, customer: _whose, ...terms } = entry.body;
  const note = entry.private?.data.note ?? '';
  return [merge('orders', order, 'terms', entry.stamp, { ...terms, note })];
};

/** Calling one off is looked at later: goods are free again, and money may have to go back. */
export const orderStage = (entry: EntryOf<'order.stage'>): Change[] => {
  const { order, stage, reason } = entry.body;
  return [
    merge('orders', order, 'stage', entry.stamp, { stage, reason }),
    ...(stage === 'off'
      ? [act(entry, { what: 'order.off', about: reason.slice(0, 120), amount: null })]
      : []),
  ];
};

export const orderPaid = (entry: EntryOf<'order.paid'>): Change[] => {
  const { order, way, amount, reference } = entry.body;
  return [
    put('ordersPaid', {
      id: entry.id,
      ...saidBy(entry),
      device: entry.device,
      order,
      way,
      amount,
      reference,
    }),
    act(entry, { what: 'order.paid', about: reference, amount }),
  ];
};
