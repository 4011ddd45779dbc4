/** Counts of stock. What is accepted moves stock; the journal says so. */
import type { EntryOf } from '../../daybook/kinds';
import { merge, put, type Change } from '../change';
import { act } from './acts';
import { saidBy } from './said-by';

export const countSet = (entry: EntryOf<'count.set'>): Change[] => {
  const { count, ...fields } = entry.body;
  return [
    merge('counts', count, 'set', entry.stamp, {
      ...fields,
      ...saidBy(entry),
      device: entry.device,
    }),
  ];
};

export const countNoted = (entry: EntryOf<'count.noted'>): Change[] =>
  entry.body.goods.map(({ item, quantity }, at) =>
    put('countNotes', {
      id: `${entry.id}:${String(at)}`,
      ...saidBy(entry),
      device: entry.device,
      count: entry.body.count,
      item,
      quantity,
      stamp: entry.stamp,
    }),
  );

/** When what is accepted was counted: the difference was there from then on. Never later than it was accepted. */
export const countedAt = ({ stamp }: Pick<EntryOf<'count.accepted'>, 'stamp'>, counted: string) =>
  counted < stamp ? counted : stamp;

export const countAccepted = (entry: EntryOf<'count.accepted'>): Change[] => {
  const { count, place, goods, reason } = entry.body;
  return [
    ...goods.map((found, at) =>
      put('countsAccepted', {
        ...found,
        stamp: countedAt(entry, found.stamp),
        id: `${entry.id}:${String(at)}`,
        ...saidBy(entry),
        device: entry.device,
        count,
        place,
        reason,
      }),
    ),
    act(entry, {
      what: 'count.accepted',
      about: reason.slice(0, 120),
      amount: goods.reduce((total, { lost }) => total + lost, 0),
    }),
  ];
};

export const countEnded = ({ stamp, body }: EntryOf<'count.ended'>): Change[] => [
  merge('counts', body.count, 'ended', stamp, { how: body.how }),
];
