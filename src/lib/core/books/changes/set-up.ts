/** Set-up: every record keeps what was said of it last. */
import type { EntryOf } from '../../daybook/kinds';
import { merge, type Change } from '../change';
import type { AnyRow } from '../table-spec';
import type { TableName } from '../tables';
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
export const makerSet = (entry: EntryOf<'maker.set'>): Change[] => [
  record('makers', entry),
  act(entry, { what: 'set-up', about: entry.body.name, amount: null }),
];
export const categorySet = (entry: EntryOf<'category.set'>): Change[] => [
  record('categories', entry),
  act(entry, { what: 'set-up', about: entry.body.name, amount: null }),
];
export const waySet = (entry: EntryOf<'way.set'>): Change[] => [
  record('ways', entry),
  act(entry, { what: 'set-up', about: entry.body.name, amount: null }),
];
export const photoSet = ({ body, stamp }: EntryOf<'photo.set'>): Change[] => [
  merge('photos', body.item, 'set', stamp, {
    picture: body.picture === null ? null : { data: body.picture },
  }),
];
export const tableSet = (entry: EntryOf<'table.set'>): Change[] => [record('tables', entry)];
export const staffSet = (entry: EntryOf<'staff.set'>): Change[] => {
  const { pin, ...body } = entry.body;
  return [
    record('staff', { body, stamp: entry.stamp }),
    ...(pin === undefined ? [] : [merge('staff', body.id, 'pin', entry.stamp, { pin })]),
    act(entry, { what: 'person.set', about: body.name, amount: null }),
  ];
};
export const pinSet = ({ body, stamp }: EntryOf<'pin.set'>): Change[] => [
  merge('staff', body.person, 'pin', stamp, { pin: body.pin }),
];
export const deviceSet = (entry: EntryOf<'device.set'>): Change[] => [record('devices', entry)];
export const eventSet = (entry: EntryOf<'event.set'>): Change[] => [
  record('events', entry),
  act(entry, { what: 'set-up', about: entry.body.name, amount: null }),
];

export const eventStage = (entry: EntryOf<'event.stage'>): Change[] => [
  merge('events', entry.body.event, 'stage', entry.stamp, { stage: entry.body.stage }),
];

/** What the entry's schema holds is what the table has; the tables' test holds the two together. */
function record(
  table: TableName,
  { body, stamp }: { readonly body: AnyRow & { readonly id: string }; readonly stamp: string },
): Change {
  const { id, ...fields } = body;
  return { op: 'merge', table, key: { id }, group: 'set', stamp, fields };
}
