/** Joining two records of one person, and taking them apart again: commands, and what can be wrong. */
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { note } from '../daybook/kind';
import { draft, privateDraft } from '../daybook/kinds';
import { customerWho, type CustomerWho } from '../daybook/kinds/customer-set';
import { Joined } from './joined';

type Customer = Row<'customers'>;

export interface JoinCustomers {
  readonly newId: () => string;
  /** Random text, at least 16 characters. */
  readonly newSalt: () => string;
  /** The record that is joined to the other, and the one they go by from now on. */
  readonly customer: string;
  readonly into: string;
  readonly customers: readonly Customer[];
}

export type JoinRefusal = {
  readonly code: 'join/same' | 'join/already' | 'join/forgotten' | 'join/unknown';
};

export type JoinOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: JoinRefusal };

/** What was agreed with whom they go by stays; what is not known of them comes along from the other. */
export function joinCustomers(command: JoinCustomers): JoinOutcome {
  const { newId, newSalt, customers } = command;
  if (command.customer === command.into) return refuse('join/same');
  const joined = new Joined(customers);
  const [from, into] = [command.customer, command.into].map((id) =>
    customers.find((each) => each.id === joined.of(id)),
  );
  if (from === undefined || into === undefined) return refuse('join/unknown');
  if (from.isErased || into.isErased) return refuse('join/forgotten');
  if (from.id === into.id) return refuse('join/already');
  const body = { customer: from.id, into: into.id };
  const drafts: Draft[] = [draft('customer.joined', newId(), null, body)];
  const who = detailsOfBoth(into, from);
  if (FIELDS.some((field) => who[field] !== into[field])) {
    const { id, discount, terms, creditLimit, isActive } = into;
    const agreed = { id, discount, terms, creditLimit, isActive };
    drafts.push(privateDraft('customer.set', newId(), agreed, newSalt(), who));
  }
  return { ok: true, drafts };
}

/** They are two people after all: each has what was said on their record. */
export const takeApart = (
  newId: () => string,
  customer: string,
): { readonly ok: true; readonly drafts: readonly Draft[] } => ({
  ok: true,
  drafts: [draft('customer.joined', newId(), null, { customer, into: null })],
});

type Details = Pick<Customer, keyof CustomerWho>;
const FIELDS = customerWho.keyof().options;

/** Of the first what is known of them, else of the second; both notes where they fit. */
export function detailsOfBoth(into: Details, from: Details): Details {
  const either = Object.fromEntries(
    FIELDS.map((field) => [field, into[field] === '' ? from[field] : into[field]]),
  ) as Details;
  const both = [...new Set([into.note, from.note])].filter((each) => each !== '').join('\n');
  return note.safeParse(both).success ? { ...either, note: both } : either;
}

const refuse = (code: JoinRefusal['code']): JoinOutcome => ({ ok: false, refusal: { code } });
