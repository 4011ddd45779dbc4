/** Standing charges: what is set up, and what became of charging cards for them. */
import type { EntryOf } from '../../daybook/kinds';
import { merge, put, type Change } from '../change';
import type { Row } from '../tables';
import { act } from './acts';
import { saidBy } from './said-by';

/** What is noted may be personal, and goes with whom it is of. */
export const chargeSet = (entry: EntryOf<'charge.set'>): Change[] => {
  const { id, ...said } = entry.body;
  const { note = '', reference = '' } = entry.private?.data ?? {};
  return [
    merge('charges', id, 'set', entry.stamp, {
      ...{ ...said, note, reference },
      ...{ ...saidBy(entry), device: entry.device },
    }),
    act(entry, {
      what: 'charge.set',
      about: said.lines[0]?.name.slice(0, 120) ?? '',
      amount: null,
    }),
  ];
};

type Card = EntryOf<'charge.paid'> | EntryOf<'charge.failed'> | EntryOf<'charge.again'>;

const cardRow = (
  entry: Card,
  more: Pick<Row<'chargeCards'>, 'is' | 'payment' | 'amount' | 'why' | 'says' | 'last4'>,
): Change => {
  const { invoice, charge, customer } = entry.body;
  const { id, device } = entry;
  return put('chargeCards', { id, ...saidBy(entry), device, invoice, charge, customer, ...more });
};

/** A card payment like any other, of no event: reports of the acquirer find it. */
const cardPayment = (
  { event, device, by, at, stamp, body }: EntryOf<'charge.paid'> | EntryOf<'charge.failed'>,
  scheme: string,
  result: Pick<Row<'cardPayments'>, 'state' | 'approval' | 'acquirer' | 'reason'>,
): Change[] => {
  const { payment, invoice, customer, way, amount, last4 } = body;
  const isTaken = result.state === 'captured';
  return [
    merge('cardPayments', payment, 'asked', stamp, {
      ...{ slip: invoice, way, event, device, by, at, amount },
    }),
    ...(isTaken
      ? [
          merge('cardPayments', payment, 'taken', stamp, {
            ...{ takenState: 'captured', scheme, last4, clears: amount, customer },
            ...{ sealed: '', voice: '' },
          }),
        ]
      : []),
    merge('cardPayments', payment, 'result', stamp, {
      ...{ ...result, resultAmount: isTaken ? amount : 0, expires: '', resultAt: at },
    }),
  ];
};

export const chargePaid = (entry: EntryOf<'charge.paid'>): Change[] => {
  const { payment, amount, scheme, last4, approval, acquirer } = entry.body;
  return [
    cardRow(entry, { is: 'paid', payment, amount, last4, why: '', says: '' }),
    ...cardPayment(entry, scheme, { state: 'captured', approval, acquirer, reason: '' }),
  ];
};

/** Only what the acquirer declined was a card payment at all. */
export const chargeFailed = (entry: EntryOf<'charge.failed'>): Change[] => {
  const { payment, amount, why, says, last4 } = entry.body;
  return [
    cardRow(entry, { is: 'failed', payment, amount, last4, why, says }),
    ...(why === 'declined'
      ? cardPayment(entry, '', { state: 'declined', approval: '', acquirer: '', reason: says })
      : []),
  ];
};

export const chargeAgain = (entry: EntryOf<'charge.again'>): Change[] => [
  cardRow(entry, { is: 'again', payment: '', amount: 0, why: '', says: '', last4: '' }),
];
