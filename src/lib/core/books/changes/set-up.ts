/** Set-up: every record keeps what was said of it last. */
import type { EntryOf, Kind } from '../../daybook/kinds';
import { merge, type Change } from '../change';

export const businessSet = (entry: EntryOf<'business.set'>): Change[] => [
  merge('businesses', entry.business, 'set', entry.stamp, entry.body),
];

export const taxSet = (entry: EntryOf<'tax.set'>): Change[] => [record('taxes', entry)];
export const itemSet = (entry: EntryOf<'item.set'>): Change[] => [record('items', entry)];
export const tableSet = (entry: EntryOf<'table.set'>): Change[] => [record('tables', entry)];
export const staffSet = (entry: EntryOf<'staff.set'>): Change[] => [record('staff', entry)];
export const deviceSet = (entry: EntryOf<'device.set'>): Change[] => [record('devices', entry)];
export const eventSet = (entry: EntryOf<'event.set'>): Change[] => [record('events', entry)];

export const eventStage = (entry: EntryOf<'event.stage'>): Change[] => [
  merge('events', entry.body.event, 'stage', entry.stamp, { stage: entry.body.stage }),
];

type SetKind = Exclude<Extract<Kind, `${string}.set`>, 'business.set'>;

function record(
  table: Parameters<typeof merge>[0],
  { body: { id, ...fields }, stamp }: EntryOf<SetKind>,
): Change {
  return merge(table, id, 'set', stamp, fields);
}
