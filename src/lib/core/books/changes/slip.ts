/** Slips that are kept for later, and their lines, each a row of its own. */
import type { EntryOf } from '../../daybook/kinds';
import { merge, type Change } from '../change';
import { saidBy } from './said-by';

export const slipSet = (entry: EntryOf<'slip.set'>): Change[] => {
  const { id, ...fields } = entry.body;
  return [
    merge('slips', id, 'set', entry.stamp, fields),
    merge('slips', id, 'state', entry.stamp, {
      ...saidBy(entry),
      state: 'open',
      device: null,
      known: null,
    }),
  ];
};

export const slipLine = ({ body, stamp }: EntryOf<'slip.line'>): Change[] => {
  const { id, ...fields } = body;
  return [merge('slipLines', id, 'set', stamp, fields)];
};

export const slipTaken = (entry: EntryOf<'slip.taken'>): Change[] => [
  merge('slips', entry.body.slip, 'state', entry.stamp, {
    ...saidBy(entry),
    state: 'taken',
    device: entry.device,
    known: null,
  }),
];

export const slipGone = (entry: EntryOf<'slip.gone'>): Change[] => [
  merge('slips', entry.body.slip, 'state', entry.stamp, {
    ...saidBy(entry),
    state: 'gone',
    device: entry.device,
    known: entry.body.known,
  }),
];
