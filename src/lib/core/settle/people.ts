/** What an event owes to people: tips, and makers' shares. Minor units. */
import { NOBODY } from '../books/names';
import { sum } from '../money/units';
import { makersShares, type MakersShare } from './makers-share';
import type { SettlingRows } from './rows';

/** Minutes on duty by person, as the event has them; over midnight where it ends before it begins. */
export function minutesOnDuty({ duty }: SettlingRows['event']): ReadonlyMap<string, number> {
  const minutes = new Map<string, number>();
  const at = (time: string): number => Number(time.slice(0, 2)) * 60 + Number(time.slice(3));
  for (const { person, from, until } of duty) {
    const long = at(until) - at(from);
    minutes.set(person, (minutes.get(person) ?? 0) + (long > 0 ? long : long + 24 * 60));
  }
  return minutes;
}

export interface TipsSettled {
  /** All that were taken, whoever has them now. */
  readonly taken: number;
  /** By whom they were taken and have not been shared out yet. */
  readonly open: readonly { readonly seller: string; readonly amount: number }[];
  /** What each person is owed, shared out or not, and has not been paid. */
  readonly owed: readonly { readonly person: string; readonly amount: number }[];
  readonly isShared: boolean;
}

export function settleTips({ tips, accounts, tipShares }: SettlingRows): TipsSettled {
  const owed = accounts
    .filter(({ account, amount }) => account.startsWith('tips:') && amount < 0)
    .map(({ account, amount }) => ({ person: account.slice('tips:'.length), amount: -amount }));
  const isShared = tipShares.length > 0;
  return {
    taken: sum(tips.map((each) => each.tips)),
    // What comes after they were shared is whoever's that took it.
    open: isShared
      ? owed.filter(({ person }) => person === NOBODY).map(asTaken)
      : owed.map(asTaken),
    owed,
    isShared,
  };
}
const asTaken = ({ person, amount }: { person: string; amount: number }) => ({
  seller: person,
  amount,
});

export interface MakerSettled extends MakersShare {
  readonly maker: string;
  readonly paid: number;
}

/** Of makers that are not known any more nothing is kept: all of it is theirs. */
export function settleMakers({ makers, makerLines, paidOut }: SettlingRows): MakerSettled[] {
  const commission = Object.fromEntries([
    ...makerLines.map(({ maker }) => [maker, '0'] as const),
    ...makers.map((maker) => [maker.id, maker.commission] as const),
  ]);
  return Object.entries(makersShares(makerLines, commission)).map(([maker, share]) => ({
    maker,
    ...share,
    paid: sum(
      paidOut.flatMap(({ for: what, whom, amount }) =>
        what === 'maker' && whom === maker ? amount : [],
      ),
    ),
  }));
}
