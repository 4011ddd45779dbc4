/** Points and rewards: how they are set up, and when a customer's moved last. */
import type { EntryOf, KnownEntry } from '../../daybook/kinds';
import type { JournalEntry } from '../../journal/journal-entry';
import { isPointsOf, POINTS } from '../../points/promotion-methods';
import { merge, type Change } from '../change';
import { act } from './acts';

export const businessPoints = (entry: EntryOf<'business.points'>): Change[] => [
  merge('businesses', entry.business, 'points', entry.stamp, { pointsRule: entry.body }),
  act(entry, { what: 'set-up', about: 'Points', amount: null }),
];

export const rewardSet = (entry: EntryOf<'reward.set'>): Change[] => {
  const { id, ...said } = entry.body;
  return [
    merge('rewards', id, 'set', entry.stamp, said),
    act(entry, { what: 'set-up', about: said.name, amount: said.value }),
  ];
};

export const pointsMoved = (entry: EntryOf<'points.moved'>): Change[] => [
  act(entry, { what: 'points.moved', about: entry.body.reason.slice(0, 120), amount: null }),
];

/** Earned, spent, given or taken: from then on they last as long as points do. What comes back wakes none. */
export function pointsLastMoved(
  { kind, stamp }: KnownEntry,
  { day, postings }: JournalEntry,
): Change[] {
  if (kind !== 'sale.rung' && kind !== 'payment.taken' && kind !== 'points.moved') return [];
  const customers = postings.flatMap(({ account, item }) =>
    item === POINTS && isPointsOf(account) ? account.slice('points:'.length) : [],
  );
  return [...new Set(customers)].map((id) => merge('pointStates', id, 'moved', stamp, { day }));
}
