/** Points and rewards of customers, as this device knows them. */
import type { Row } from '../core/books/tables';
import { localTime } from '../core/event/local-time';
import { pointsHeld, type PointsFacts, type PointsHeld } from '../core/points/points-facts';
import { pointsRuleOf, type EarningGoods, type PointsRule } from '../core/points/points-rule';
import type { DeviceDatabase } from './database';

type AsSetUp = Pick<PointsFacts, 'rule' | 'rewards'>;

async function asSetUp({ books }: DeviceDatabase): Promise<AsSetUp & { readonly zone: string }> {
  const [[business], rewards] = await Promise.all([
    books.businesses.toArray(),
    books.rewards.toArray(),
  ]);
  return { rule: pointsRuleOf(business), rewards, zone: business?.timeZone ?? 'UTC' };
}

/** Whether there are any: nobody else waits for what follows. */
const isAny = ({ rule, rewards }: AsSetUp): boolean =>
  rule.isOn || rewards.some(({ isActive }) => isActive);

export const givesPoints = async (db: DeviceDatabase): Promise<boolean> => isAny(await asSetUp(db));

type Has = Pick<PointsFacts, 'has' | 'movedOn'>;

async function hasOf({ books }: DeviceDatabase, customer: string): Promise<Has> {
  const [sums, state] = await Promise.all([
    books.pointSums.where('account').equals(`points:${customer}`).toArray(),
    books.pointStates.get(customer),
  ]);
  return {
    has: new Map(sums.map(({ item, quantity }) => [item, quantity])),
    movedOn: state?.day ?? '',
  };
}

/** What is known where a slip with these goods is paid. */
export async function pointsFacts(
  db: DeviceDatabase,
  customer: string,
  items: readonly (string | null)[],
): Promise<PointsFacts> {
  const ids = [...new Set(items.flatMap((item) => item ?? []))];
  const [{ rule, rewards }, has, goods] = await Promise.all([
    asSetUp(db),
    hasOf(db, customer),
    db.books.items.bulkGet(ids),
  ]);
  return {
    ...{ rule, rewards, ...has },
    goods: new Map(
      goods.flatMap((item): [string, EarningGoods][] =>
        item === undefined ? [] : [[item.id, item]],
      ),
    ),
  };
}

/** What a customer has; null where nothing is given and they have none. */
export async function pointsOf(
  db: DeviceDatabase,
  { id }: Pick<Row<'customers'>, 'id'>,
): Promise<PointsHeld | null> {
  const [{ zone, ...set }, has] = await Promise.all([asSetUp(db), hasOf(db, id)]);
  if (!isAny(set) && [...has.has.values()].every((quantity) => quantity === 0)) return null;
  return pointsHeld({ ...set, ...has }, localTime(Date.now(), zone).day);
}

export interface PointsOfAll {
  readonly rule: PointsRule;
  readonly rewards: readonly Row<'rewards'>[];
  readonly customers: readonly {
    readonly customer: Row<'customers'>;
    readonly held: PointsHeld;
    /** Local day, ISO 8601; empty for never. */
    readonly movedOn: string;
  }[];
  /** Local, ISO 8601. */
  readonly day: string;
}

/** Everybody who has points, or has spent something towards a reward; those who were forgotten with no name. */
export async function pointsOfAll(db: DeviceDatabase): Promise<PointsOfAll> {
  const { books } = db;
  const [{ zone, ...set }, sums, states] = await Promise.all([
    asSetUp(db),
    books.pointSums.toArray(),
    books.pointStates.toArray(),
  ]);
  const by = new Map<string, Map<string, number>>();
  for (const { account, item, quantity } of sums) {
    const id = account.slice('points:'.length);
    if (id === 'given' || quantity === 0) continue;
    const has = by.get(id) ?? new Map<string, number>();
    by.set(id, has.set(item, quantity));
  }
  const rows = await books.customers.bulkGet([...by.keys()]);
  const moved = new Map(states.map(({ id, day }) => [id, day]));
  const { day } = localTime(Date.now(), zone);
  return {
    ...{ ...set, day },
    customers: rows
      .flatMap((customer) => {
        if (customer === undefined) return [];
        const movedOn = moved.get(customer.id) ?? '';
        const has = by.get(customer.id) ?? new Map<string, number>();
        return { customer, movedOn, held: pointsHeld({ ...set, has, movedOn }, day) };
      })
      .toSorted((a, b) => b.held.points - a.held.points),
  };
}
