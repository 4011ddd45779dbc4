/** Parts of payments, and what became of cards. What they add to sums is in the journal. */
import type { EntryOf } from '../../daybook/kinds';
import { handedBackIn } from '../../journal/take-back';
import { merge, put, type Change } from '../change';
import { act } from './acts';
import { saidBy } from './said-by';

export const paymentTaken = (entry: EntryOf<'payment.taken'>): Change[] => [
  put('payments', {
    ...{ id: entry.id, ...saidBy(entry), device: entry.device, ...entry.body },
    held: entry.body.held ?? null,
    promotion: entry.body.promotion ?? null,
  }),
  ...cardChanges(entry),
  ...payerOf(entry),
];

const payerOf = ({ id, event, body, private: apart }: EntryOf<'payment.taken'>): Change[] =>
  apart === undefined
    ? []
    : [
        put('payers', {
          id,
          event,
          customer: body.customer,
          name: apart.data.payer ?? '',
          strokes: apart.data.signature ?? [],
        }),
      ];

function cardChanges({ id, stamp, body }: EntryOf<'payment.taken'>): Change[] {
  const { card, clears, customer } = body;
  if (card === null) return [];
  const { state, scheme, last4, sealed, voice, approval, acquirer, expires } = card;
  const taken = { takenState: state, scheme, last4, clears, customer, sealed, voice };
  const changes = [merge('cardPayments', id, 'taken', stamp, taken)];
  if (state !== 'deferred') {
    const amount = body.charge + body.surcharge + body.tip;
    const said = { state, resultAmount: amount, approval, acquirer, expires, reason: '' };
    changes.push(merge('cardPayments', id, 'result', stamp, { ...said, resultAt: '' }));
  }
  return changes;
}

export const paymentAsked = ({
  event,
  device,
  by,
  at,
  stamp,
  body,
}: EntryOf<'payment.asked'>): Change[] => {
  const { payment, ...asked } = body;
  return [merge('cardPayments', payment, 'asked', stamp, { ...asked, event, device, by, at })];
};

export const paymentResult = ({ at, stamp, body }: EntryOf<'payment.result'>): Change[] => {
  const { payment, state, amount, approval, acquirer, reason } = body;
  const said = { state, resultAmount: amount, approval, acquirer, reason, resultAt: at };
  // Nothing is held any more, whatever it came to.
  const held = { expires: '' };
  return [merge('cardPayments', payment, 'result', stamp, { ...said, ...held })];
};

/** What was decided last is what the acquirer is told. */
export const holdDecided = (entry: EntryOf<'hold.decided'>): Change[] => {
  const { payment, does, amount } = entry.body;
  return [
    merge('cardPayments', payment, 'decided', entry.stamp, {
      decision: does,
      decidedAmount: amount,
      decidedBy: entry.id,
      decidedOn: entry.device,
    }),
    act(entry, { what: 'hold.decided', about: does, amount }),
  ];
};

export const paymentReversed = (entry: EntryOf<'payment.reversed'>): Change[] => {
  const { payment, slip, reason, isCard, takes } = entry.body;
  const amount = handedBackIn(takes);
  const { id, device, stamp } = entry;
  return [
    put('reversals', { id, ...saidBy(entry), device, payment, slip, amount, reason }),
    ...(isCard ? [merge('cardPayments', payment, 'reversed', stamp, { isReversed: true })] : []),
    act(entry, { what: 'payment.reversed', about: reason.slice(0, 120), amount }),
  ];
};
