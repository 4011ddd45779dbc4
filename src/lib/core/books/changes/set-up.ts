/** Set-up: every record keeps what was said of it last. */
import type { EntryOf, Kind } from '../../daybook/kinds';
import { merge, type Change } from '../change';
import { act } from './acts';

export const businessSet = (entry: EntryOf<'business.set'>): Change[] => [
  merge('businesses', entry.business, 'set', entry.stamp, entry.body),
  act(entry, { what: 'set-up', about: entry.body.name, amount: null }),
];

export const taxSet = (entry: EntryOf<'tax.set'>): Change[] => [
  record('taxes', entry),
  act(entry, { what: 'set-up', about: entry.body.name, amount: null }),
];
export const itemSet = (entry: EntryOf<'item.set'>): Change[] => {
  const { name, detail, price } = entry.body;
  const about = [name, detail].filter((part) => part !== '').join(', ');
  return [
    record('items', entry),
    act(entry, { what: 'price.set', about: about.slice(0, 120), amount: price }),
  ];
};
export const tableSet = (entry: EntryOf<'table.set'>): Change[] => [record('tables', entry)];
export const staffSet = (entry: EntryOf<'staff.set'>): Change[] => [
  record('staff', entry),
  act(entry, { what: 'person.set', about: entry.body.name, amount: null }),
];
export const deviceSet = (entry: EntryOf<'device.set'>): Change[] => [record('devices', entry)];
export const eventSet = (entry: EntryOf<'event.set'>): Change[] => [
  record('events', entry),
  act(entry, { what: 'set-up', about: entry.body.name, amount: null }),
];

export const eventStage = (entry: EntryOf<'event.stage'>): Change[] => [
  merge('events', entry.body.event, 'stage', entry.stamp, { stage: entry.body.stage }),
];

type SetKind = Exclude<Extract<Kind, `${string}.set`>, 'business.set' | 'customer.set'>;

function record(
  table: Parameters<typeof merge>[0],
  { body: { id, ...fields }, stamp }: EntryOf<SetKind>,
): Change {
  return merge(table, id, 'set', stamp, fields);
}
