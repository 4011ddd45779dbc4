/** The cash drawer, from float to final read. */
import type { EntryOf } from '../../daybook/kinds';
import { add, put, type Change } from '../change';
import { NO_EVENT } from '../tables';
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

export const paymentTaken = (entry: EntryOf<'payment.taken'>): Change[] => {
  const { drawer, way, clears, charge, surcharge, change, rounding } = entry.body;
  return [
    put('payments', { id: entry.id, ...saidBy(entry), device: entry.device, ...entry.body }),
    add('drawerSums', { drawer }, { parts: 1, handed: charge + surcharge, change, rounding }),
    add('eventWays', { event: entry.event ?? NO_EVENT, way }, { parts: 1, takings: clears }),
  ];
};
