/** Settling: reports, what is joined by hand, who was paid, and that an event is settled. */
import type { EntryOf } from '../../daybook/kinds';
import { outsideId } from '../../daybook/outside-id';
import { merge, put, type Change } from '../change';
import { act } from './acts';
import { saidBy } from './said-by';

const said = (
  entry: EntryOf<'money.came' | 'tips.shared' | 'paid.out' | 'maker.mailed' | 'event.settled'>,
) => ({
  id: entry.id,
  ...saidBy(entry),
  device: entry.device,
});

/** The same line of the same report is the same row, however often it is taken in. */
export const cardLineId = (business: string, source: string, line: string): string =>
  outsideId(business, 'card-line', `${source} ${line}`);

export const cardsReported = (entry: EntryOf<'cards.reported'>): Change[] => {
  const { source, day, lines } = entry.body;
  return lines.map(({ id, at, ...line }) =>
    merge('cardLines', cardLineId(entry.business, source, id), 'set', entry.stamp, {
      ...{ source, day, ...line, paidAt: at },
    }),
  );
};

export const cardsJoined = ({ stamp, body }: EntryOf<'cards.joined'>): Change[] => [
  merge('cardJoins', body.line, 'set', stamp, { payment: body.payment, why: body.why }),
];

export const moneyCame = (entry: EntryOf<'money.came'>): Change[] => [
  put('moneyCame', { ...said(entry), ...entry.body }),
  act(entry, { what: 'money.came', about: entry.body.what, amount: entry.body.amount }),
];

export const tipsShared = (entry: EntryOf<'tips.shared'>): Change[] => [
  put('tipShares', { ...said(entry), ...entry.body }),
  act(entry, { what: 'tips.shared', about: entry.body.how, amount: null }),
];

export const paidOut = (entry: EntryOf<'paid.out'>): Change[] => [
  put('paidOut', { ...said(entry), ...entry.body }),
  act(entry, { what: 'paid.out', about: entry.body.what, amount: entry.body.amount }),
];

export const makerMailed = (entry: EntryOf<'maker.mailed'>): Change[] => {
  const { event, maker } = entry.body;
  return [put('makerMails', { ...said(entry), event, maker })];
};

export const eventSettled = (entry: EntryOf<'event.settled'>): Change[] => {
  const { event, ...body } = entry.body;
  return [
    put('settledEvents', { ...said(entry), stamp: entry.stamp, ...body, event }),
    merge('events', event, 'settled', entry.stamp, {}),
    act(entry, { what: 'event.settled', about: '', amount: null }),
  ];
};
