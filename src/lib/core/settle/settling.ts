/** Settling an event: should be and is of everything, what it left, and what is loose. Pure; minor units. */
import { partsSchema } from '../daybook/parts-schema';
import { expectedCash } from '../drawer/expected-cash';
import { bagsOf, type Bag } from '../drawer/move-cash';
import { settleCards, type CardsSettled } from './cards';
import { eventEnds, lastSettled, type EventEnd } from './event-ends';
import {
  minutesOnDuty,
  settleMakers,
  settlePay,
  settleTips,
  type MakerSettled,
  type PaySettled,
  type TipsSettled,
} from './people';
import { resultOf, type EventResult } from './result';
import type { SettlingRows } from './rows';
import { settleStock, type StockSettled } from './stock';
import { EXCHANGE } from '../payment/methods';
import { sum } from '../money/units';

export interface DrawerSettled {
  readonly drawer: string;
  readonly name: string;
  readonly should: number;
  /** Null until it has been counted. */
  readonly is: number | null;
}

export interface Settling {
  readonly drawers: readonly DrawerSettled[];
  readonly bags: readonly Bag[];
  readonly cards: CardsSettled;
  /** Ways that are no cash, and what of each has not come to the bank. */
  readonly toCome: readonly {
    readonly way: string;
    readonly taken: number;
    readonly open: number;
  }[];
  /** What came, and what was handed in to come. */
  readonly came: SettlingRows['came'];
  readonly handedIn: SettlingRows['handedIn'];
  readonly stock: readonly StockSettled[];
  readonly taxes: SettlingRows['taxes'];
  readonly tips: TipsSettled;
  readonly minutes: readonly { readonly person: string; readonly minutes: number }[];
  readonly makers: readonly MakerSettled[];
  readonly pay: readonly PaySettled[];
  readonly result: EventResult;
  readonly hours: SettlingRows['hours'];
  readonly ends: readonly EventEnd[];
  readonly accepted: readonly string[];
  /** Who looks after which of them. */
  readonly hands: SettlingRows['hands'];
  /** What stands on its accounts, and how far each device is known: what it is settled with. */
  readonly balances: readonly { readonly account: string; readonly amount: number }[];
  readonly heads: readonly {
    readonly device: string;
    readonly seq: number;
    readonly hash: string;
  }[];
  /** Entries of the event that change nothing. */
  readonly leftOut: readonly string[];
  readonly settled: {
    readonly at: string;
    readonly by: string | null;
    readonly digest: string;
  } | null;
}

/** What a page is sure of before it shows it. */
export const settlingSchema = partsSchema<Settling>({
  drawers: 'list',
  bags: 'list',
  cards: 'record',
  toCome: 'list',
  came: 'list',
  handedIn: 'list',
  stock: 'list',
  taxes: 'list',
  tips: 'record',
  minutes: 'list',
  makers: 'list',
  pay: 'list',
  result: 'record',
  hours: 'list',
  ends: 'list',
  accepted: 'list',
  hands: 'list',
  balances: 'list',
  heads: 'list',
  leftOut: 'list',
  settled: 'record or null',
});

export function settlingOf(rows: SettlingRows): Settling {
  const cards = settleCards(rows);
  const stock = settleStock(rows);
  const tips = settleTips(rows);
  const makers = settleMakers(rows);
  const pay = settlePay(rows);
  const { open, accepted } = eventEnds(rows, { cards, stock, tips, makers, pay });
  const last = lastSettled(rows.settled);
  const isSettled = last !== undefined && rows.event.settledStamp > rows.event.backStamp;
  return {
    drawers: drawersOf(rows),
    bags: bagsOf(rows.drawerReads, rows.cashMoves),
    cards,
    toCome: toComeOf(rows),
    came: rows.came,
    handedIn: rows.handedIn,
    stock,
    taxes: rows.taxes,
    tips,
    minutes: [...minutesOnDuty(rows.event)].map(([person, minutes]) => ({ person, minutes })),
    makers,
    pay,
    result: resultOf(rows, {
      cardFees: cards.fees,
      makers: sum(makers.map(({ toPay }) => toPay)),
      pay,
    }),
    hours: rows.hours,
    ends: open,
    accepted,
    hands: rows.hands.filter(({ looseEnd }) => open.some((end) => end.looseEnd === looseEnd)),
    balances: balancesOf(rows.accounts),
    heads: rows.devices
      .filter(({ seq }) => seq > 0)
      .map(({ id: device, seq, hash }) => ({ device, seq, hash }))
      .sort((a, b) => (a.device < b.device ? -1 : 1)),
    leftOut: rows.kept.flatMap(({ id, isCounted }) => (isCounted ? [] : id)).sort(),
    settled: isSettled ? { at: last.at, by: last.by, digest: last.digest } : null,
  };
}

/** Every account that is not nothing, in order of name. */
export const balancesOf = (
  accounts: readonly { readonly account: string; readonly amount: number }[],
): Settling['balances'] =>
  accounts
    .filter(({ amount }) => amount !== 0)
    .map(({ account, amount }) => ({ account, amount }))
    .sort((a, b) => (a.account < b.account ? -1 : 1));

function drawersOf({ drawers, drawerSums, drawerReads }: SettlingRows): readonly DrawerSettled[] {
  return drawers.map((drawer) => {
    const { id, name } = drawer;
    const read = drawerReads.find((each) => each.drawer === id);
    const sums = drawerSums.find((row) => row.drawer === id);
    return {
      drawer: id,
      name,
      should: expectedCash(drawer, sums),
      is: read?.counted ?? null,
    };
  });
}

function toComeOf({ accounts, came }: SettlingRows): Settling['toCome'] {
  return (
    accounts
      .filter(({ account }) => account.startsWith('owed:'))
      .map(({ account, amount: open }) => ({
        way: account.slice('owed:'.length),
        taken:
          open +
          sum(
            came.flatMap(({ from }) =>
              from.flatMap((each) => (each.account === account ? each.amount : [])),
            ),
          ),
        open,
      }))
      // What was exchanged comes to nothing by itself.
      .filter(({ way, taken, open }) => way !== EXCHANGE || taken !== 0 || open !== 0)
  );
}
