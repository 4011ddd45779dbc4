/** Cash: the drawer from float to final read, and what is moved in between. */
import type { EntryOf } from '../../daybook/kinds';
import { put, type Change } from '../change';
import { act } from './acts';
import { saidBy } from './said-by';

export const drawerOpened = (entry: EntryOf<'drawer.opened'>): Change[] => {
  const { name, float, counts } = entry.body;
  return [
    put('drawers', { id: entry.id, ...saidBy(entry), device: entry.device, name, float, counts }),
    act(entry, { what: 'drawer.opened', about: name, amount: float }),
  ];
};

export const drawerCounted = (entry: EntryOf<'drawer.counted'>): Change[] => [
  put('drawerReads', { id: entry.id, ...saidBy(entry), device: entry.device, ...entry.body }),
  act(entry, {
    what: 'drawer.counted',
    about: entry.body.reason.slice(0, 120),
    amount: entry.body.difference,
  }),
];

export const drawerLate = (entry: EntryOf<'drawer.late'>): Change[] => [
  put('drawerLates', {
    id: entry.id,
    ...saidBy(entry),
    device: entry.device,
    ...entry.body,
  }),
  act(entry, {
    what: 'drawer.late',
    about: entry.body.reason.slice(0, 120),
    amount: entry.body.amount,
  }),
];

export const cashMoved = (entry: EntryOf<'cash.moved'>): Change[] => {
  const { from, to, amount, what, bag = '', counts = [], photo } = entry.body;
  return [
    put('cashMoves', {
      id: entry.id,
      ...saidBy(entry),
      device: entry.device,
      ...{ from, to, amount, what, bag, counts },
      photo: photo === undefined ? null : { data: photo },
    }),
    act(entry, { what: 'cash.moved', about: what, amount }),
  ];
};
