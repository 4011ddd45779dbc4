/** Customers: what is agreed with them, who they are, and that they are forgotten. */
import type { EntryOf } from '../../daybook/kinds';
import { merge, put, type Change } from '../change';
import { act } from './acts';
import { saidBy } from './said-by';

/** Sorts after every stamp there can be: what is erased stays so, whatever else still arrives. */
const FOR_GOOD = 'z';

const NOBODY = {
  name: '',
  email: '',
  phone: '',
  company: '',
  address: '',
  taxNumber: '',
  note: '',
};

export const customerSet = (entry: EntryOf<'customer.set'>): Change[] => {
  const { id, ...agreed } = entry.body;
  const { stamp, private: apart } = entry;
  return [
    merge('customers', id, 'set', stamp, agreed),
    ...(apart === undefined ? [] : [merge('customers', id, 'who', stamp, apart.data)]),
  ];
};

export const customerConsent = (entry: EntryOf<'customer.consent'>): Change[] => {
  const { customer, isGiven, way } = entry.body;
  return [
    put('consents', { id: entry.id, ...saidBy(entry), customer, isGiven, way }),
    merge('customers', customer, 'consent', entry.stamp, { mayKeep: isGiven }),
  ];
};

export const customerErased = (entry: EntryOf<'customer.erased'>): Change[] => [
  merge('customers', entry.body.customer, 'who', FOR_GOOD, { ...NOBODY, isErased: true }),
  act(entry, {
    what: 'customer.erased',
    about: entry.body.customer.slice(-8),
    amount: null,
  }),
];
