/** Sentences about customers. */
import type { Row } from '../../core/books/tables';
import { byRecord } from '../../core/customer/joined';
import { shortOf } from '../../core/ledger/chart';
import type { ChoiceOption } from '../forms/Choice.svelte';
import type { JoinRefusal } from '../../core/customer/join-customers';
import type { CustomerRefusal } from '../../core/customer/set-customer';
import type { ConsentWay } from '../../core/daybook/kinds/customer-consent';

/** Of a file of all that is kept of somebody, where the server did not say what it has. */
export const FILE_IN_PART =
  'The file has what this device knows; what is long past may be missing. Save it again once the server answers.';

/** What customers are called in lists, by the ids of all their records. */
export const customerNames = (
  customers: readonly Pick<Row<'customers'>, 'id' | 'name' | 'joinedInto' | 'isErased'>[],
): ReadonlyMap<string, string> =>
  new Map(
    [...byRecord(customers)].map(([id, { name, isErased }]) => [
      id,
      isErased ? `forgotten, ${shortOf(id)}` : name,
    ]),
  );

/** Whom to choose from. */
export const customerChoices = (
  customers: readonly Pick<Row<'customers'>, 'id' | 'name' | 'company'>[],
): readonly ChoiceOption[] =>
  customers.map(({ id, name, company }) => ({
    value: id,
    label: company === '' ? name : `${name}, ${company}`,
  }));

export const consentWords: Readonly<Record<ConsentWay, string>> = {
  spoken: 'said so',
  written: 'signed for it',
  online: 'agreed online',
};

export function customerRefusalWords(refusal: CustomerRefusal): string {
  switch (refusal.code) {
    case 'customer/no-name':
      return 'Give the customer a name; a first name will do.';
    case 'customer/email-wrong':
      return `“${refusal.typed}” is not an e-mail address; it should read like name@street.example.`;
    case 'customer/discount-wrong':
      return `“${refusal.typed}” is not a percentage; type figures from 0 to 100, such as 10.`;
    case 'customer/terms-wrong':
      return `“${refusal.typed}” is not a number of days; type a whole number up to 365.`;
    case 'customer/too-long':
      return `There is too much text under “${refusal.field}”; shorten it.`;
    case 'customer/code-taken':
      return `${refusal.typed} is the card of ${refusal.name} already.`;
    case 'customer/erased':
      return 'This customer has been forgotten; add them anew.';
  }
}

/** What is known of a customer, as it is asked for. */
export const DETAIL_NAMES = {
  name: 'Name',
  company: 'Company',
  email: 'E-mail',
  phone: 'Telephone',
  address: 'Address',
  taxNumber: 'Tax number',
  code: 'Card',
  note: 'Note',
} as const;

const JOIN_REFUSALS: Readonly<Record<JoinRefusal['code'] | 'slip/gone', string>> = {
  'slip/gone': 'That slip is over.',
  'join/same': 'That is the same record; choose another one.',
  'join/already': 'They are one already.',
  'join/forgotten': 'One of them was forgotten meanwhile: nobody is one with them.',
  'join/unknown': 'This device does not know one of them any more.',
};
export const joinRefusalWords = ({ code }: { readonly code: keyof typeof JOIN_REFUSALS }): string =>
  JOIN_REFUSALS[code];
