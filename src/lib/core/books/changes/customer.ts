/** Customers: what is agreed with them, who they are, which of them are one, and that they are forgotten. */
import type { EntryOf } from '../../daybook/kinds';
import type { CardOnFile } from '../../daybook/kinds/customer-card';
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
  code: '',
};

const NO_CARD = { cardScheme: '', cardLast4: '', cardExpiry: '' };

export const customerSet = (entry: EntryOf<'customer.set'>): Change[] => {
  const { id, ...agreed } = entry.body;
  const { stamp, private: apart } = entry;
  return [
    merge('customers', id, 'set', stamp, agreed),
    ...(apart === undefined
      ? []
      : [merge('customers', id, 'who', stamp, { ...apart.data, code: apart.data.code ?? '' })]),
  ];
};

export const customerConsent = (entry: EntryOf<'customer.consent'>): Change[] => {
  const { customer, isGiven, way } = entry.body;
  return [
    put('consents', { id: entry.id, ...saidBy(entry), customer, isGiven, way }),
    merge('customers', customer, 'consent', entry.stamp, { mayKeep: isGiven }),
  ];
};

export const customerCard = (entry: EntryOf<'customer.card'>): Change[] => {
  const { customer, consent } = entry.body;
  const card = entry.private?.data;
  return [
    // Agreed to and not there: it was erased, and what erased it says what is left.
    ...(consent !== null && card === undefined
      ? []
      : [merge('customers', customer, 'card', entry.stamp, cardFields(card))]),
    act(entry, {
      what: consent === null ? 'card.removed' : 'card.kept',
      about: customer.slice(-8),
      amount: null,
    }),
  ];
};

const cardFields = (card: CardOnFile | undefined) =>
  card === undefined
    ? NO_CARD
    : {
        cardScheme: card.scheme,
        cardLast4: card.last4,
        cardExpiry: card.expiry,
      };

export const customerErased = (entry: EntryOf<'customer.erased'>): Change[] => [
  merge('customers', entry.body.customer, 'who', FOR_GOOD, { ...NOBODY, isErased: true }),
  merge('customers', entry.body.customer, 'card', FOR_GOOD, NO_CARD),
  act(entry, {
    what: 'customer.erased',
    about: entry.body.customer.slice(-8),
    amount: null,
  }),
];

export const customerJoined = (entry: EntryOf<'customer.joined'>): Change[] => {
  const { customer, into } = entry.body;
  return [
    merge('customers', customer, 'joined', entry.stamp, { joinedInto: into }),
    act(entry, {
      what: into === null ? 'customer.parted' : 'customer.joined',
      about: customer.slice(-8),
      amount: null,
    }),
  ];
};
