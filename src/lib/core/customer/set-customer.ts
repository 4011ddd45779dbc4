/** Setting a customer up, what they agreed to, and forgetting them: commands, and what can be wrong. */
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft, privateDraft } from '../daybook/kinds';
import type { ConsentWay } from '../daybook/kinds/customer-consent';
import { customerWho, type CustomerWho } from '../daybook/kinds/customer-set';
import { Joined } from './joined';
import { readPercent } from '../money/percent';

export interface SetCustomer {
  readonly newId: () => string;
  /** Random text, at least 16 characters. */
  readonly newSalt: () => string;
  /** Null for somebody new. */
  readonly id: string | null;
  readonly who: CustomerWho;
  /** Percent, as typed. */
  readonly discount: string;
  /** Days, as typed. */
  readonly terms: string;
  /** Minor units, or null for no limit. */
  readonly creditLimit: number | null;
  readonly isActive: boolean;
  /** How they agreed to be kept, if that is news. */
  readonly consent: ConsentWay | null;
  readonly customers: readonly Row<'customers'>[];
}

export type CustomerRefusal =
  | { readonly code: 'customer/no-name' }
  | { readonly code: 'customer/email-wrong'; readonly typed: string }
  | { readonly code: 'customer/discount-wrong'; readonly typed: string }
  | { readonly code: 'customer/terms-wrong'; readonly typed: string }
  | { readonly code: 'customer/too-long'; readonly field: string }
  | { readonly code: 'customer/code-taken'; readonly typed: string; readonly name: string }
  | { readonly code: 'customer/erased' };

export type CustomerOutcome =
  | { readonly ok: true; readonly id: string; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: CustomerRefusal };

export function setCustomer(command: SetCustomer): CustomerOutcome {
  const { newId, isActive, creditLimit, consent, customers } = command;
  const id = command.id ?? newId();
  if (customers.some((each) => each.id === id && each.isErased))
    return refuse({ code: 'customer/erased' });
  const discount = readPercent(command.discount);
  if (discount === null)
    return refuse({ code: 'customer/discount-wrong', typed: command.discount });
  const terms = Number(command.terms.trim() === '' ? '0' : command.terms);
  if (!Number.isInteger(terms) || terms < 0 || terms > 365)
    return refuse({ code: 'customer/terms-wrong', typed: command.terms });
  const who = trimmed(command.who);
  const read = customerWho.safeParse(who);
  if (!read.success) return refuse(refusalOf(String(read.error.issues[0]?.path[0]), who));
  const { code = '' } = read.data;
  const joined = new Joined(customers);
  const other = customers.find((each) => !joined.isSame(each.id, id) && isKnownBy(each, code));
  if (other !== undefined)
    return refuse({ code: 'customer/code-taken', typed: code, name: other.name });
  const body = { id, discount, terms, creditLimit, isActive };
  const drafts = [privateDraft('customer.set', newId(), body, command.newSalt(), read.data)];
  if (consent !== null) drafts.push(consentDraft(newId(), id, true, consent));
  return { ok: true, id, drafts };
}

/** Takes down that a customer may be kept, or may no longer be. */
export const noteConsent = (
  newId: () => string,
  customer: string,
  isGiven: boolean,
  way: ConsentWay,
): { readonly ok: true; readonly drafts: readonly Draft[] } => ({
  ok: true,
  drafts: [consentDraft(newId(), customer, isGiven, way)],
});

/** Drops what is personal of a customer, everywhere and for good. @param records All of theirs. */
export const eraseCustomer = (
  newId: () => string,
  records: readonly string[],
): { readonly ok: true; readonly drafts: readonly Draft[] } => ({
  ok: true,
  drafts: records.map((customer) => draft('customer.erased', newId(), null, { customer })),
});

const consentDraft = (id: string, customer: string, isGiven: boolean, way: ConsentWay): Draft =>
  draft('customer.consent', id, null, { customer, isGiven, way });

const refuse = (refusal: CustomerRefusal): CustomerOutcome => ({ ok: false, refusal });

/** Whether they are known by the code of this card: nobody else is, unless two devices out of touch gave it twice. */
export const isKnownBy = (
  { isActive, isErased, code }: Pick<Row<'customers'>, 'isActive' | 'isErased' | 'code'>,
  card: string,
): boolean => code !== '' && isActive && !isErased && code.toLowerCase() === card.toLowerCase();

const trimmed = (who: CustomerWho): CustomerWho => ({
  name: who.name.trim(),
  email: who.email.trim(),
  phone: who.phone.trim(),
  company: who.company.trim(),
  address: who.address.trim(),
  taxNumber: who.taxNumber.trim(),
  note: who.note.trim(),
  code: (who.code ?? '').trim(),
});

function refusalOf(field: string, who: CustomerWho): CustomerRefusal {
  if (field === 'name' && who.name === '') return { code: 'customer/no-name' };
  if (field === 'email') return { code: 'customer/email-wrong', typed: who.email };
  return { code: 'customer/too-long', field };
}
