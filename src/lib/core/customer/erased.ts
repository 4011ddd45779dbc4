/** Dropping what is personal in entries: which entries speak of whom, and what is left of them. */
import { withoutPrivate } from '../daybook/chain';
import type { Entry } from '../daybook/entry';
import { isKind, type Kind } from '../daybook/kinds';
import { readEntry } from '../daybook/read-entry';

/** Which field of the body says whose personal data stands apart, by kind of entry. */
const PERSON_FIELDS: Readonly<Partial<Record<Kind, string>>> = {
  'customer.set': 'id',
  'customer.card': 'customer',
  'payment.taken': 'customer',
  'receipt.asked': 'customer',
  'order.terms': 'customer',
  'invoice.made': 'customer',
  'charge.set': 'customer',
  'invoice.asked': 'customer',
  'reminder.asked': 'customer',
};

/** Whose personal data an entry holds, or null. */
export function personIn({ kind, body, private: apart }: Entry): string | null {
  const field = isKind(kind) ? PERSON_FIELDS[kind] : undefined;
  if (apart === undefined || field === undefined) return null;
  const id = body[field];
  return typeof id === 'string' ? id : null;
}

/** Customers whom these entries erase. */
export function erasedBy(entries: readonly Entry[]): readonly string[] {
  return entries.flatMap((entry) => {
    if (entry.kind !== 'customer.erased') return [];
    const read = readEntry(entry);
    return read.ok && read.entry.kind === 'customer.erased' ? [read.entry.body.customer] : [];
  });
}

/** The entry without its private part if it speaks of one of these customers. */
export function forgetting(entry: Entry, erased: ReadonlySet<string>): Entry {
  const person = personIn(entry);
  return person !== null && erased.has(person) ? withoutPrivate(entry) : entry;
}
