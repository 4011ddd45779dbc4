/** Parts of payments: into the drawer, into the takings by way, into the tips of whoever took them. */
import type { EntryOf } from '../../daybook/kinds';
import { takingsOfPart } from '../../payment/part-sums';
import { add, merge, put, type Change } from '../change';
import { NO_EVENT, NOBODY } from '../tables';
import { act } from './acts';
import { saidBy } from './said-by';

export const paymentTaken = (entry: EntryOf<'payment.taken'>): Change[] => {
  const { drawer, way, charge, surcharge, tip, change, rounding } = entry.body;
  const event = entry.event ?? NO_EVENT;
  const seller = entry.by ?? NOBODY;
  const handed = charge + surcharge + tip;
  return [
    put('payments', { id: entry.id, ...saidBy(entry), device: entry.device, ...entry.body }),
    ...cardChanges(entry),
    ...payerOf(entry),
    ...(drawer === null
      ? []
      : [add('drawerSums', { drawer }, { parts: 1, handed, change, rounding })]),
    add(
      'eventWays',
      { event, way },
      { parts: 1, takings: takingsOfPart(entry.body), surcharge, tips: tip },
    ),
    ...(tip === 0 ? [] : [add('eventTips', { event, seller }, { parts: 1, tips: tip })]),
  ];
};

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
  const { payment, slip, way, drawer, takings, surcharge, tip, amount, reason, isCard } =
    entry.body;
  const event = entry.event ?? NO_EVENT;
  const { seller: whose = entry.by } = entry.body;
  const seller = whose ?? NOBODY;
  return [
    put('reversals', {
      id: entry.id,
      ...saidBy(entry),
      device: entry.device,
      payment,
      slip,
      amount,
      reason,
    }),
    ...(isCard
      ? [merge('cardPayments', payment, 'reversed', entry.stamp, { isReversed: true })]
      : []),
    act(entry, { what: 'payment.reversed', about: reason.slice(0, 120), amount }),
    ...(drawer === null ? [] : [add('drawerSums', { drawer }, { back: amount })]),
    add(
      'eventWays',
      { event, way },
      { parts: -1, takings: -takings, surcharge: -surcharge, tips: -tip },
    ),
    ...(tip === 0 ? [] : [add('eventTips', { event, seller }, { parts: -1, tips: -tip })]),
  ];
};
