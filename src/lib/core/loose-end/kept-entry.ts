/** Loose ends that come of entries: what could not be applied, or should not have been written. */
import { tables, type Row, type TableName } from '../books/tables';
import type { Draft } from '../daybook/chain';
import type { Entry } from '../daybook/entry';
import { draft, isKind, privateDraft, type Kind } from '../daybook/kinds';
import type { Settlement } from '../daybook/kinds/loose-end-settled';
import { readEntry } from '../daybook/read-entry';
import type { ToBeSeen } from '../daybook/sync-messages';

/** An entry that somebody must look at; `state` says what became of it. */
export interface KeptEntry {
  readonly entry: Entry;
  readonly state: ToBeSeen;
  readonly code: string;
  /** Why, as a sentence. */
  readonly message: string;
}

export type SettleRefusal =
  | { readonly code: 'looseEnd/no-reason' }
  | { readonly code: 'looseEnd/settled' }
  /** The way of settling does not fit what became of the entry. */
  | { readonly code: 'looseEnd/not-so' };

export type SettleOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: SettleRefusal };

export const looseEndOf = ({ entry }: Pick<KeptEntry, 'entry'>): string => `entry:${entry.id}`;

/** Those that nobody has settled, in their order. */
export function openOnes(
  kept: readonly KeptEntry[],
  settlements: readonly Pick<Row<'settlements'>, 'looseEnd'>[],
): readonly KeptEntry[] {
  const settled = new Set(settlements.map(({ looseEnd }) => looseEnd));
  return kept.filter((each) => !settled.has(looseEndOf(each)));
}

/** What can be done about it, the usual first. */
export function waysToSettle({ state, entry }: KeptEntry): readonly Settlement[] {
  if (state !== 'barred') return ['accepted'];
  return recordOf(entry) === null ? ['accepted'] : ['done over', 'left out'];
}

export interface Settle {
  readonly newId: () => string;
  readonly newSalt: () => string;
  readonly kept: KeptEntry;
  readonly how: Settlement;
  readonly reason: string;
  /** The record that the entry wanted to set, as it stands in the books; undefined if there is none. */
  readonly standing: Readonly<Record<string, unknown>> | undefined;
  readonly settlements: readonly Pick<Row<'settlements'>, 'looseEnd'>[];
}

/**
 * Settles it with a record that says how and why. Doing over says the same again under one's own
 * name; leaving out says again what stood before, so that the device that had written it shows that.
 */
export function settleKept(command: Settle): SettleOutcome {
  const { newId, kept, how } = command;
  const reason = command.reason.trim();
  if (openOnes([kept], command.settlements).length === 0) return refuse('looseEnd/settled');
  if (!waysToSettle(kept).includes(how)) return refuse('looseEnd/not-so');
  if (reason === '') return refuse('looseEnd/no-reason');
  const drafts = how === 'accepted' ? [] : saidAgain(command);
  const body = { looseEnd: looseEndOf(kept), how, reason: reason.slice(0, 500) };
  return { ok: true, drafts: [...drafts, draft('looseEnd.settled', newId(), null, body)] };
}

function saidAgain({ newId, newSalt, kept, how, standing }: Settle): readonly Draft[] {
  const read = readEntry(kept.entry);
  const record = recordOf(kept.entry);
  if (!read.ok || record === null) return [];
  const { kind, body, private: apart } = read.entry;
  if (how === 'done over') {
    return kind === 'customer.set' && apart !== undefined
      ? [privateDraft(kind, newId(), body, newSalt(), apart.data)]
      : [draft(kind, newId(), kept.entry.event, body)];
  }
  const before = standing === undefined ? putAway(record, body) : bodyFrom(record, standing);
  if (before === null) return [];
  return [{ ...draft(kind, newId(), kept.entry.event, body), body: before }];
}

/** A record that was never there before is put away, a picture or PIN that was not there is none. */
function putAway(
  { table, id }: RecordSet,
  body: Readonly<Record<string, unknown>>,
): Record<string, unknown> | null {
  if (table === 'photos') return { item: id, picture: null };
  if (body['person'] !== undefined) return { person: id, pin: null };
  return 'isActive' in body ? { ...body, isActive: false } : null;
}

function bodyFrom(
  { table, id, groups, idField }: RecordSet,
  standing: Readonly<Record<string, unknown>>,
): Record<string, unknown> {
  const fields: Readonly<Record<string, readonly string[]>> = tables[table].groups;
  const body = Object.fromEntries(
    groups.flatMap((group) => fields[group] ?? []).map((field) => [field, standing[field]]),
  );
  if (table === 'photos') {
    const picture = body['picture'] as { readonly data: string } | null;
    body['picture'] = picture?.data ?? null;
  }
  return idField === null ? body : { [idField]: id, ...body };
}

/** The record that an entry sets: where it stands, under which id, and which groups of fields of it. */
export interface RecordSet {
  readonly table: TableName;
  readonly id: string;
  readonly groups: readonly string[];
  /** What the entry calls the id; null where the record is the business. */
  readonly idField: string | null;
}

interface SetBy {
  readonly table: TableName;
  readonly group?: string;
  /** Groups that it may set as well, if it has their fields. */
  readonly also?: readonly string[];
  readonly idField?: string;
}

const setBy: Partial<Record<Kind, SetBy>> = {
  'business.set': { table: 'businesses', also: ['lock'] },
  'business.lock': { table: 'businesses', group: 'lock' },
  'business.cash': { table: 'businesses', group: 'cash' },
  'tax.set': { table: 'taxes' },
  'category.set': { table: 'categories' },
  'way.set': { table: 'ways' },
  'item.set': { table: 'items' },
  'item.supply': { table: 'supplies', idField: 'item' },
  'supplier.set': { table: 'suppliers' },
  'place.set': { table: 'places' },
  'maker.set': { table: 'makers' },
  'photo.set': { table: 'photos', idField: 'item' },
  'table.set': { table: 'tables' },
  'staff.set': { table: 'staff', also: ['pin'] },
  'pin.set': { table: 'staff', group: 'pin', idField: 'person' },
  'device.set': { table: 'devices' },
  'customer.set': { table: 'customers' },
  'event.set': { table: 'events', also: ['taxes', 'ways'] },
  'event.taxes': { table: 'events', group: 'taxes', idField: 'event' },
  'event.ways': { table: 'events', group: 'ways', idField: 'event' },
  'event.costs': { table: 'events', group: 'costs', idField: 'event' },
  'event.prices': { table: 'events', group: 'prices', idField: 'event' },
  'event.people': { table: 'events', group: 'people', idField: 'event' },
  'event.bring': { table: 'events', group: 'bring', idField: 'event' },
};

export function recordOf({ kind, body, business }: Entry): RecordSet | null {
  const found = isKind(kind) ? setBy[kind] : undefined;
  if (found === undefined) return null;
  const { table, group = 'set', also = [], idField = 'id' } = found;
  const own: Readonly<Record<string, readonly string[]>> = tables[table].groups;
  const isSet = (each: string): boolean => own[each]?.some((field) => field in body) === true;
  const groups = [group, ...also.filter(isSet)];
  if (table === 'businesses') return { table, id: business, groups, idField: null };
  const id = body[idField];
  return typeof id === 'string' ? { table, id, groups, idField } : null;
}

const refuse = (code: SettleRefusal['code']): SettleOutcome => ({ ok: false, refusal: { code } });
