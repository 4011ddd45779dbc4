/** Set-up: every record keeps what was said of it last. */
import type { EntryOf } from '../../daybook/kinds';
import { outsideId } from '../../daybook/outside-id';
import { merge, type Change } from '../change';
import type { AnyRow } from '../table-spec';
import type { TableName } from '../tables';
import { act } from './acts';

export const businessSet = (entry: EntryOf<'business.set'>): Change[] => {
  const { lockAfter, ...body } = entry.body;
  return [
    merge('businesses', entry.business, 'set', entry.stamp, body),
    ...(lockAfter === undefined
      ? []
      : [merge('businesses', entry.business, 'lock', entry.stamp, { lockAfter })]),
    act(entry, { what: 'set-up', about: body.name, amount: null }),
  ];
};
export const businessLock = (entry: EntryOf<'business.lock'>): Change[] => [
  merge('businesses', entry.business, 'lock', entry.stamp, entry.body),
  act(entry, { what: 'lock.set', about: '', amount: null }),
];
export const businessCash = (entry: EntryOf<'business.cash'>): Change[] => [
  merge('businesses', entry.business, 'cash', entry.stamp, entry.body),
  act(entry, { what: 'cash.set', about: '', amount: null }),
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
export const staffPay = ({ stamp, body }: EntryOf<'staff.pay'>): Change[] => {
  const { person, ...set } = body;
  return [merge('staffPay', person, 'set', stamp, set)];
};
export const pinSet = ({ body, stamp }: EntryOf<'pin.set'>): Change[] => [
  merge('staff', body.person, 'pin', stamp, { pin: body.pin }),
];
export const deviceSet = (entry: EntryOf<'device.set'>): Change[] => [record('devices', entry)];
export const eventSet = (entry: EntryOf<'event.set'>): Change[] => {
  const { swaps, ways, ...body } = entry.body;
  const { stamp } = entry;
  return [
    record('events', { body, stamp }),
    ...(swaps === undefined ? [] : [merge('events', body.id, 'taxes', stamp, { swaps })]),
    ...(ways === undefined ? [] : [merge('events', body.id, 'ways', stamp, { ways })]),
    act(entry, { what: 'set-up', about: body.name, amount: null }),
  ];
};
export const eventTaxes = (entry: EntryOf<'event.taxes'>): Change[] => [
  merge('events', entry.body.event, 'taxes', entry.stamp, { swaps: entry.body.swaps }),
  act(entry, { what: 'event.taxes', about: '', amount: null }),
];
export const eventWays = (entry: EntryOf<'event.ways'>): Change[] => [
  merge('events', entry.body.event, 'ways', entry.stamp, { ways: entry.body.ways }),
  act(entry, { what: 'event.ways', about: '', amount: null }),
];

export const eventCosts = (entry: EntryOf<'event.costs'>): Change[] => {
  const { event, fee, costs } = entry.body;
  return [
    merge('events', event, 'costs', entry.stamp, { fee, costs }),
    act(entry, { what: 'event.costs', about: '', amount: null }),
  ];
};
export const eventPrices = (entry: EntryOf<'event.prices'>): Change[] => {
  const { event, single, over } = entry.body;
  return [
    merge('events', event, 'prices', entry.stamp, { single, over }),
    act(entry, { what: 'event.prices', about: '', amount: null }),
  ];
};
export const eventPeople = ({ body, stamp }: EntryOf<'event.people'>): Change[] => [
  merge('events', body.event, 'people', stamp, { duty: body.duty, devices: body.devices }),
];
export const eventBring = ({ body, stamp }: EntryOf<'event.bring'>): Change[] => [
  merge('events', body.event, 'bring', stamp, { things: body.things }),
];

/** What is ticked off at an event; its id is made of both. */
export const tickIdOf = (event: string, thing: string): string => outsideId(event, 'thing', thing);
export const eventTicked = ({ body, stamp }: EntryOf<'event.ticked'>): Change[] => [
  merge('ticks', tickIdOf(body.event, body.thing), 'set', stamp, body),
];

/** When it was reached; nobody reaches that something is planned. */
export const eventStage = ({ body, stamp }: EntryOf<'event.stage'>): Change[] =>
  body.stage === 'planned' ? [] : [merge('events', body.event, body.stage, stamp, {})];

export const eventBack = (entry: EntryOf<'event.back'>): Change[] => {
  const { event, to, why } = entry.body;
  return [
    merge('events', event, 'back', entry.stamp, { backTo: to, backWhy: why }),
    act(entry, { what: 'event.back', about: `${to}: ${why}`.slice(0, 120), amount: null }),
  ];
};

/** What the entry's schema holds is what the table has; the tables' test holds the two together. */
function record(
  table: TableName,
  { body, stamp }: { readonly body: AnyRow & { readonly id: string }; readonly stamp: string },
): Change {
  const { id, ...fields } = body;
  return { op: 'merge', table, key: { id }, group: 'set', stamp, fields };
}
