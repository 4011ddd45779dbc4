/** The ledger: the vendor's chart of accounts, and what was handed over. */
import type { EntryOf } from '../../daybook/kinds';
import { merge, put, type Change } from '../change';
import { act } from './acts';
import { saidBy } from './said-by';

/** There is one of it. */
export const CHART = 'chart';

export const ledgerChart = ({ stamp, body }: EntryOf<'ledger.chart'>): Change[] => [
  merge('ledgerCharts', CHART, 'set', stamp, { accounts: body.accounts }),
];

export const ledgerHanded = (entry: EntryOf<'ledger.handed'>): Change[] => [
  put('ledgerHanded', {
    ...{ id: entry.id, ...saidBy(entry), device: entry.device, stamp: entry.stamp, ...entry.body },
  }),
  act(entry, { what: 'ledger.handed', about: '', amount: null }),
];
