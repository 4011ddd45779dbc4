/** The cash drawer, from float to final read. */
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
