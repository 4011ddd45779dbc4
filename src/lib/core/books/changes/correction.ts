import type { EntryOf } from '../../daybook/kinds';
import { put, type Change } from '../change';
import { act } from './acts';
import { saidBy } from './said-by';

export const saleCorrected = (entry: EntryOf<'sale.corrected'>): Change[] => {
  const { id, stamp, body } = entry;
  const { sale, saleNumber, reason, fix } = body;
  return [
    put('corrections', { id, ...saidBy(entry), stamp, sale, saleNumber, reason, fix }),
    act(entry, {
      what: 'sale.corrected',
      about: `${saleNumber}: ${reason}`.slice(0, 120),
      amount: null,
    }),
  ];
};
