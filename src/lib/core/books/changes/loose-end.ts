import type { EntryOf } from '../../daybook/kinds';
import { outsideId } from '../../daybook/outside-id';
import { merge, put, type Change } from '../change';
import { act } from './acts';
import { saidBy } from './said-by';

export const looseEndSettled = (entry: EntryOf<'looseEnd.settled'>): Change[] => [
  put('settlements', { id: entry.id, ...saidBy(entry), ...entry.body }),
  act(entry, {
    what: 'looseEnd.settled',
    about: `${entry.body.how}: ${entry.body.reason}`.slice(0, 120),
    amount: null,
  }),
];

export const looseEndHanded = ({ business, stamp, body }: EntryOf<'looseEnd.handed'>): Change[] => [
  merge('looseEndHands', outsideId(business, 'loose-end', body.looseEnd), 'set', stamp, body),
];
