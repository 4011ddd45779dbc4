/** What an event owes to people: tips, and makers' shares. Minor units. */
import { NOBODY } from '../books/names';
import { sum } from '../money/units';
import {
  makersShares,
  sellersCommission,
  type MakersGoods,
  type MakersShare,
} from './makers-share';
import type { SettlingRows } from './rows';
import { wageOf } from './wages';

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
  /** Tax on what was sold, which the vendor owes and not the maker. */
  readonly tax: number;
  /** What customers brought back, without tax, above nothing; it is off `sold` already. */
  readonly cameBack: number;
  readonly paid: number;
  /** How often the server was asked to mail them their statement. */
  readonly mailed: number;
  /** By item, what was sold and what came back of it apart; the most first. */
  readonly goods: readonly Omit<MakersGoods, 'maker'>[];
}

/** Of makers that are not known any more nothing is kept: all of it is theirs. */
export function settleMakers({
  makers,
  makerLines,
  paidOut,
  makerMails,
}: SettlingRows): MakerSettled[] {
  const commission = Object.fromEntries([
    ...makerLines.map(({ maker }) => [maker, '0'] as const),
    ...makers.map((maker) => [maker.id, maker.commission] as const),
  ]);
  return Object.entries(makersShares(makerLines, commission)).map(([maker, share]) => ({
    maker,
    ...share,
    tax: sum(makerLines.flatMap((line) => (line.maker === maker ? line.tax : []))),
    cameBack:
      0 - sum(makerLines.flatMap((line) => (line.maker === maker ? Math.min(line.net, 0) : []))),
    mailed: makerMails.filter((mail) => mail.maker === maker).length,
    goods: goodsOf(makerLines.filter((line) => line.maker === maker)),
    paid: sum(
      paidOut.flatMap(({ for: what, whom, amount }) =>
        what === 'maker' && whom === maker ? amount : [],
      ),
    ),
  }));
}

/** Goods without an item of their own are told apart by their name. */
function goodsOf(lines: readonly MakersGoods[]): MakerSettled['goods'] {
  const goods = new Map<string, Omit<MakersGoods, 'maker'>>();
  for (const { item, name, quantity, net, tax } of lines) {
    const key = `${quantity < 0 ? 'back' : 'sold'} ${item ?? ''} ${name}`;
    const before = goods.get(key) ?? { item, name, quantity: 0, net: 0, tax: 0 };
    goods.set(key, {
      ...before,
      ...{ quantity: before.quantity + quantity, net: before.net + net, tax: before.tax + tax },
    });
  }
  return [...goods.values()].sort((a, b) => b.net - a.net || (a.name < b.name ? -1 : 1));
}

/** What somebody is owed for an event beside tips, and has been paid of it. */
export interface PaySettled {
  readonly person: string;
  readonly minutes: number;
  readonly wage: number;
  readonly sold: number;
  readonly commission: number;
  readonly paidWage: number;
  readonly paidCommission: number;
}

/** Of everybody who has a wage or a commission and was there or sold, and of whoever was paid either. */
export function settlePay({ event, staffPay, sellers, paidOut }: SettlingRows): PaySettled[] {
  const minutes = minutesOnDuty(event);
  const paidTo = (person: string, what: 'wages' | 'commission'): number =>
    sum(paidOut.flatMap((paid) => (paid.for === what && paid.whom === person ? paid.amount : [])));
  const people = new Set([
    ...staffPay.map(({ id }) => id),
    ...paidOut.flatMap(({ for: what, whom }) =>
      (what === 'wages' || what === 'commission') && whom !== null ? whom : [],
    ),
  ]);
  return [...people]
    .sort()
    .map((person): PaySettled => {
      const pay = staffPay.find(({ id }) => id === person);
      const sold = sellers.flatMap((each) => (each.seller === person ? each.net : []));
      const long = minutes.get(person) ?? 0;
      const rate = pay?.commission ?? '';
      return {
        person,
        minutes: long,
        wage: wageOf(long, pay?.wage ?? 0),
        sold: sum(sold),
        // A commission is of what was sold; what only came back earns none, and costs none.
        commission: rate === '' ? 0 : Math.max(0, sellersCommission(sold, rate)),
        paidWage: paidTo(person, 'wages'),
        paidCommission: paidTo(person, 'commission'),
      };
    })
    .filter(({ wage, commission, paidWage, paidCommission }) =>
      [wage, commission, paidWage, paidCommission].some((each) => each !== 0),
    );
}
