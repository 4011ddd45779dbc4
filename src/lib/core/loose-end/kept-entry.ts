/** Loose ends that come of entries: what could not be applied, or should not have been written. */
import { tables, type Row, type TableName } from '../books/tables';
import type { Draft } from '../daybook/chain';
import type { Entry } from '../daybook/entry';
import { draft, isKind, privateDraft, type Kind } from '../daybook/kinds';
import type { Settlement } from '../daybook/kinds/loose-end-settled';
import { readEntry } from '../daybook/read-entry';

/** An entry that somebody must look at; `state` says what became of it. */
export interface KeptEntry {
  readonly entry: Entry;
  /** Counts, though its writer lacked the right; left out for want of it; or not understood yet. */
  readonly state: 'doubted' | 'barred' | 'kept';
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
  const before = standing === undefined ? putAway(body) : bodyFrom(record, standing);
  if (before === null) return [];
  return [{ ...draft(kind, newId(), kept.entry.event, body), body: before }];
}

/** A record that was never there before is put away. */
const putAway = (body: Readonly<Record<string, unknown>>): Record<string, unknown> | null =>
  'isActive' in body ? { ...body, isActive: false } : null;

const bodyFrom = (
  { table, hasId }: RecordSet,
  standing: Readonly<Record<string, unknown>>,
): Record<string, unknown> =>
  Object.fromEntries(
    [...(hasId ? ['id'] : []), ...tables[table].groups['set']!].map((field) => [
      field,
      standing[field],
    ]),
  );

/** The record that an entry sets: where it stands and under which id. */
export interface RecordSet {
  readonly table: TableName;
  readonly id: string;
  readonly hasId: boolean;
}

const tableOf: Partial<Record<Kind, TableName>> = {
  'business.set': 'businesses',
  'tax.set': 'taxes',
  'item.set': 'items',
  'table.set': 'tables',
  'staff.set': 'staff',
  'device.set': 'devices',
  'customer.set': 'customers',
  'event.set': 'events',
};

export function recordOf({ kind, body, business }: Entry): RecordSet | null {
  const table = isKind(kind) ? tableOf[kind] : undefined;
  if (table === undefined) return null;
  if (table === 'businesses') return { table, id: business, hasId: false };
  const id = body['id'];
  return typeof id === 'string' ? { table, id, hasId: true } : null;
}

const refuse = (code: SettleRefusal['code']): SettleOutcome => ({ ok: false, refusal: { code } });
