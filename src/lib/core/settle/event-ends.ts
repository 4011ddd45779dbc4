/**
 * The loose ends of an event: everything that does not tie up, each with a name of its own. What is named by its
 * amount is another loose end once the amount is another.
 */
import { outsideId } from '../daybook/outside-id';
import { bagsOf, type Bag } from '../drawer/move-cash';
import { isCounted } from '../event/stage';
import { momentOf } from '../event/local-time';
import { byAmount } from '../loose-end/by-amount';
import { lateCashes, lateCashName } from '../loose-end/late-cash';
import { offDays } from '../loose-end/off-day';
import { uncollectedName } from '../loose-end/order-ends';
import { openCardEnds, type CardLooseEnd } from '../payment/card-state';
import { refundState, type RefundState } from '../payment/refund-state';
import type { CardsSettled, OddLine, SettledCard } from './cards';
import type { MakerSettled, PaySettled, TipsSettled } from './people';
import type { SettlingDevice, SettlingRows } from './rows';
import { isUnloaded, type StockSettled } from './stock';

type End<C extends string, F extends object> = { readonly looseEnd: string; readonly code: C } & F;

export type EventEnd =
  | End<'drawer/open', { readonly drawer: string; readonly name: string }>
  | End<
      'drawer/difference',
      {
        readonly read: string;
        readonly name: string;
        readonly amount: number;
        readonly reason: string;
      }
    >
  | End<'drawer/late', { readonly drawer: string; readonly name: string; readonly amount: number }>
  | End<'device/not-sent', { readonly device: SettlingDevice; readonly entries: number }>
  | End<'device/not-heard', { readonly device: SettlingDevice }>
  | End<'slip/waiting', { readonly slip: string; readonly name: string; readonly sort: string }>
  | End<
      'order/uncollected',
      { readonly order: string; readonly number: string; readonly deposit: number }
    >
  | End<'slip/owing', { readonly slip: string; readonly amount: number }>
  | End<'slip/twice', { readonly slip: string; readonly numbers: readonly string[] }>
  | End<
      'card/state',
      {
        readonly is: CardLooseEnd['is'];
        readonly amount: number;
        readonly last4: string;
        readonly at: string;
      }
    >
  | End<
      'card/refund',
      {
        readonly is: Exclude<RefundState, 'done'>;
        readonly amount: number;
        readonly reason: string;
      }
    >
  | End<'card/no-report', { readonly amount: number }>
  | End<'card/missing', { readonly card: SettledCard }>
  | End<'card/odd', { readonly odd: OddLine }>
  | End<'payout/short', { readonly payout: string; readonly amount: number }>
  | End<'bag/on-its-way', { readonly bag: Bag }>
  | End<'way/to-come', { readonly way: string; readonly amount: number }>
  | End<'stock/off', { readonly stock: StockSettled }>
  | End<'goods/still-out', { readonly items: number }>
  | End<'tips/not-shared', { readonly amount: number }>
  | End<'tips/not-paid', { readonly person: string; readonly amount: number }>
  | End<'maker/not-paid', { readonly maker: string; readonly amount: number }>
  | End<
      'pay/not-paid',
      {
        readonly person: string;
        readonly for: 'wages' | 'commission';
        readonly amount: number;
      }
    >
  | End<
      'entry/kept',
      { readonly kind: string; readonly message: string; readonly by: string | null }
    >
  | End<'clock/off-day', { readonly day: string; readonly sales: number; readonly amount: number }>
  | End<'settled/changed', { readonly changes: readonly BalanceChange[] }>;
export type EventEndCode = EventEnd['code'];

/** What stands otherwise on an account than when the event was settled; minor units. */
export interface BalanceChange {
  readonly account: string;
  readonly was: number;
  readonly is: number;
}

interface Worked {
  readonly cards: CardsSettled;
  readonly stock: readonly StockSettled[];
  readonly tips: TipsSettled;
  readonly makers: readonly MakerSettled[];
  readonly pay: readonly PaySettled[];
}

/** @returns Those that nobody has settled, and how many were. */
export function eventEnds(
  rows: SettlingRows,
  worked: Worked,
): { readonly open: readonly EventEnd[]; readonly accepted: readonly string[] } {
  const settled = new Set(rows.settlements.map(({ looseEnd }) => looseEnd));
  const all = allEnds(rows, worked);
  return {
    open: all.filter(({ looseEnd }) => !settled.has(looseEnd)),
    accepted: [...new Set(all.map(({ looseEnd }) => looseEnd))].filter((each) => settled.has(each)),
  };
}

function allEnds(rows: SettlingRows, worked: Worked): readonly EventEnd[] {
  return [
    ...deviceEnds(rows),
    ...drawerEnds(rows),
    ...slipEnds(rows),
    ...cardEnds(rows, worked.cards),
    ...moneyEnds(rows),
    ...stockEnds(rows, worked.stock),
    ...peopleEnds(rows, worked),
    ...bookEnds(rows),
  ];
}

/** When the event is over, milliseconds since 1970. */
function endOf({ days, timeZone }: SettlingRows['event']): number {
  const last = days.at(-1);
  if (last === undefined) return 0;
  return momentOf(last.date, last.closes, timeZone === '' ? 'UTC' : timeZone);
}

/** Devices that said they had more than has come, and those that were there and were not heard of since it ended. */
function deviceEnds({ devices, event }: SettlingRows): EventEnd[] {
  const until = endOf(event);
  return devices.flatMap((device): EventEnd[] => {
    const { id, seq, headSaid, seenAt, hasWritten, isShutOut } = device;
    if (isShutOut) return [];
    if (headSaid > seq)
      return [
        {
          looseEnd: `unsent:${id}-p${String(headSaid)}`,
          code: 'device/not-sent',
          device,
          entries: headSaid - seq,
        },
      ];
    const isThere = hasWritten || event.devices.includes(id);
    // Since that is written down: of a device that was never heard of nobody can tell.
    return isThere && seenAt > 0 && seenAt < until
      ? [{ looseEnd: `unheard:${id}-${event.id.slice(-12)}`, code: 'device/not-heard', device }]
      : [];
  });
}

function drawerEnds({ drawers, drawerSums, drawerReads }: SettlingRows): EventEnd[] {
  const nameOf = (id: string): string => drawers.find((drawer) => drawer.id === id)?.name ?? '';
  const counted = new Set(drawerReads.map(({ drawer }) => drawer));
  return [
    ...drawers
      .filter(({ id }) => !counted.has(id))
      .map(({ id, name }): EventEnd => ({
        looseEnd: `uncounted:${id}`,
        code: 'drawer/open',
        drawer: id,
        name,
      })),
    ...drawerReads
      .filter(({ difference }) => difference !== 0)
      .map(({ id, drawer, difference, reason }): EventEnd => ({
        looseEnd: `read:${id}`,
        code: 'drawer/difference',
        ...{ read: id, name: nameOf(drawer), amount: difference, reason },
      })),
    ...lateCashes(drawers, drawerSums, drawerReads).map(({ drawer, amount }): EventEnd => ({
      looseEnd: lateCashName({ drawer, amount }),
      code: 'drawer/late',
      ...{ drawer: drawer.id, name: drawer.name, amount },
    })),
  ];
}

const isOver = (event: SettlingRows['event'], now: number): boolean =>
  now > endOf(event) || isCounted(event);

const slipEnds = ({
  waiting,
  uncollected,
  owing,
  soldTwice,
  event,
  now,
}: SettlingRows): EventEnd[] => [
  // Until it is over they may still come.
  ...(isOver(event, now) ? uncollected : []).map((order): EventEnd => ({
    // As the list of loose ends has it (loose-end/order-ends.ts).
    looseEnd: uncollectedName(order.order, event.id),
    code: 'order/uncollected',
    ...order,
  })),
  ...waiting.map(({ slip: { id, name, sort } }): EventEnd => ({
    looseEnd: `waiting:${id}`,
    code: 'slip/waiting',
    ...{ slip: id, name, sort },
  })),
  ...owing.map(({ slip, amount }): EventEnd => ({
    looseEnd: `owing:${slip}-${byAmount(amount)}`,
    code: 'slip/owing',
    ...{ slip, amount },
  })),
  ...soldTwice.map(({ slip, numbers }): EventEnd => ({
    looseEnd: `slip:${slip}`,
    code: 'slip/twice',
    ...{ slip, numbers },
  })),
];

const A_MINUTE = 60_000;

function cardEnds({ cards, refunds, event, now }: SettlingRows, settled: CardsSettled): EventEnd[] {
  const states = openCardEnds(
    cards,
    [],
    new Date(now - A_MINUTE).toISOString(),
    new Date(now).toISOString(),
  ).map(({ payment: { id, amount, last4, at }, is }): EventEnd => ({
    looseEnd: `card:${id}`,
    code: 'card/state',
    ...{ is, amount, last4, at },
  }));
  const report: EventEnd[] =
    settled.tills > 0 && !settled.isReported
      ? [
          {
            looseEnd: `noreport:${event.id}-${byAmount(settled.tills)}`,
            code: 'card/no-report',
            amount: settled.tills,
          },
        ]
      : [];
  const back = refunds.flatMap((refund): EventEnd[] => {
    const is = refundState(refund);
    if (is === 'done' || refund.event !== event.id) return [];
    const { id, amount, reason } = refund;
    return [{ looseEnd: `refund:${id}`, code: 'card/refund', ...{ is, amount, reason } }];
  });
  return [
    ...states,
    ...back,
    ...report,
    ...settled.missing.map((card): EventEnd => ({
      looseEnd: `unreported:${card.payment}`,
      code: 'card/missing',
      card,
    })),
    ...settled.odd.map((odd): EventEnd => ({
      looseEnd: `report:${odd.line}-${odd.is}`,
      code: 'card/odd',
      odd,
    })),
    ...settled.payouts.flatMap(({ payout, gross, fees, came }): EventEnd[] => {
      const short = gross - fees - came;
      // Nothing of it has come: what is still to come says so.
      if (came === 0 || short === 0) return [];
      const name = outsideId(event.id, 'payout', payout);
      return [
        {
          looseEnd: `payout:${name}-${byAmount(short)}`,
          code: 'payout/short',
          ...{ payout, amount: short },
        },
      ];
    }),
  ];
}

/** Bags that are not at the bank, and ways to pay whose money has not come. */
function moneyEnds({ drawerReads, cashMoves, accounts, event }: SettlingRows): EventEnd[] {
  const standing = new Map(accounts.map(({ account, amount }) => [account, amount]));
  const bags = bagsOf(drawerReads, cashMoves).filter(
    ({ id }) => (standing.get(`bag:${id}`) ?? 0) !== 0,
  );
  return [
    ...bags.map((bag): EventEnd => ({
      looseEnd: `bag:${bag.id}`,
      code: 'bag/on-its-way',
      bag,
    })),
    ...accounts.flatMap(({ account, amount }): EventEnd[] => {
      if (!account.startsWith('owed:') || amount === 0) return [];
      const way = account.slice('owed:'.length);
      const name = outsideId(event.id, 'way', way);
      return [{ looseEnd: `tocome:${name}-${byAmount(amount)}`, code: 'way/to-come', way, amount }];
    }),
  ];
}

function stockEnds(rows: SettlingRows, stock: readonly StockSettled[]): EventEnd[] {
  const { event } = rows;
  if (!isUnloaded(rows)) {
    return stock.length === 0
      ? []
      : [{ looseEnd: `out:${event.id}`, code: 'goods/still-out', items: stock.length }];
  }
  return stock
    .filter(({ open }) => open !== 0)
    .map((each): EventEnd => ({
      looseEnd: `goods:${outsideId(event.id, 'goods', each.item)}-${byAmount(each.open)}`,
      code: 'stock/off',
      stock: each,
    }));
}

function peopleEnds({ event }: SettlingRows, { tips, makers, pay }: Worked): EventEnd[] {
  const open = tips.open.reduce((total, { amount }) => total + amount, 0);
  return [
    ...(open > 0
      ? [
          {
            looseEnd: `tips:${event.id}-${byAmount(open)}`,
            code: 'tips/not-shared',
            amount: open,
          } as const,
        ]
      : []),
    ...(tips.isShared ? tips.owed : []).map(({ person, amount }): EventEnd => ({
      looseEnd: `tip:${outsideId(event.id, 'tip', person)}-${byAmount(amount)}`,
      code: 'tips/not-paid',
      ...{ person, amount },
    })),
    ...makers.flatMap(({ maker, toPay, paid }): EventEnd[] =>
      toPay === paid
        ? []
        : [
            {
              looseEnd: `maker:${outsideId(event.id, 'maker', maker)}-${byAmount(toPay - paid)}`,
              code: 'maker/not-paid',
              ...{ maker, amount: toPay - paid },
            },
          ],
    ),
    ...pay.flatMap(({ person, wage, commission, paidWage, paidCommission }) =>
      [
        { for: 'wages' as const, amount: wage - paidWage },
        { for: 'commission' as const, amount: commission - paidCommission },
      ].flatMap((owed): EventEnd[] =>
        owed.amount === 0
          ? []
          : [
              {
                looseEnd: `pay:${outsideId(event.id, owed.for, person)}-${byAmount(owed.amount)}`,
                code: 'pay/not-paid',
                ...{ person, ...owed },
              },
            ],
      ),
    ),
  ];
}

function bookEnds(rows: SettlingRows): EventEnd[] {
  const { event, hours, kept } = rows;
  return [
    ...kept.map(({ id, isCounted: _isCounted, ...each }): EventEnd => ({
      looseEnd: `entry:${id}`,
      code: 'entry/kept',
      ...each,
    })),
    ...offDays([event], hours, []).map(({ looseEnd, day, sales, takings }): EventEnd => ({
      looseEnd,
      code: 'clock/off-day',
      ...{ day, sales, amount: takings },
    })),
    ...changedSince(rows),
  ];
}

/** What has come since it was settled; the settled figures stay as they are. */
function changedSince({ settled, accounts, event }: SettlingRows): EventEnd[] {
  const last = lastSettled(settled);
  if (last === undefined || event.settledStamp < event.backStamp) return [];
  const changes = changesSince(last.balances, accounts);
  if (changes.length === 0) return [];
  const about = outsideId(event.id, 'changed', JSON.stringify(changes));
  return [{ looseEnd: `changed:${about}`, code: 'settled/changed', changes }];
}

export const lastSettled = <S extends { readonly stamp: string }>(
  settled: readonly S[],
): S | undefined =>
  settled.reduce<S | undefined>(
    (last, each) => (last === undefined || each.stamp > last.stamp ? each : last),
    undefined,
  );

type Balances = readonly { readonly account: string; readonly amount: number }[];

export function changesSince(was: Balances, now: Balances): readonly BalanceChange[] {
  const before = new Map(was.map(({ account, amount }) => [account, amount]));
  const after = new Map(now.map(({ account, amount }) => [account, amount]));
  return [...new Set([...before.keys(), ...after.keys()])]
    .sort()
    .map((account) => ({ account, was: before.get(account) ?? 0, is: after.get(account) ?? 0 }))
    .filter((change) => change.was !== change.is);
}
