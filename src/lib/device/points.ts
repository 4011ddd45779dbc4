/** Points and rewards of customers, as this device knows them. */
import type { Row } from '../core/books/tables';
import { localTime } from '../core/event/local-time';
import { pointsHeld, type PointsFacts, type PointsHeld } from '../core/points/points-facts';
import { pointsRuleOf, type EarningGoods, type PointsRule } from '../core/points/points-rule';
import { Joined } from '../core/customer/joined';
import { personOf, recordsAmong } from './customer-records';
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

/** @param records All of whoever it is. */
async function hasOf({ books }: DeviceDatabase, records: readonly string[]): Promise<Has> {
  const [sums, states] = await Promise.all([
    books.pointSums
      .where('account')
      .anyOf(records.map((id) => `points:${id}`))
      .toArray(),
    books.pointStates.bulkGet([...records]),
  ]);
  return { has: addedUp(sums), movedOn: latest(states.map((state) => state?.day ?? '')) };
}

/** Points, and what was spent towards each reward, of all records together. */
function addedUp(
  sums: readonly Pick<Row<'pointSums'>, 'item' | 'quantity'>[],
): ReadonlyMap<string, number> {
  const has = new Map<string, number>();
  for (const { item, quantity } of sums) has.set(item, (has.get(item) ?? 0) + quantity);
  return has;
}

/** The last of days, ISO 8601; empty where there is none. */
const latest = (days: readonly string[]): string => days.toSorted().at(-1) ?? '';

/** What is known where a slip with these goods is paid. */
export async function pointsFacts(
  db: DeviceDatabase,
  customer: string,
  items: readonly (string | null)[],
): Promise<PointsFacts> {
  const ids = [...new Set(items.flatMap((item) => item ?? []))];
  const [{ rule, rewards }, has, goods] = await Promise.all([
    asSetUp(db),
    personOf(db, customer).then(({ records }) => hasOf(db, records)),
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

/** What a customer has; null where nothing is given and they have none. @param records All of theirs. */
export async function pointsOf(
  db: DeviceDatabase,
  records: readonly string[],
): Promise<PointsHeld | null> {
  const [{ zone, ...set }, has] = await Promise.all([asSetUp(db), hasOf(db, records)]);
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
  const there = sums.flatMap(({ account, ...sum }) => {
    const id = account.slice('points:'.length);
    return id === 'given' || sum.quantity === 0 ? [] : [{ id, ...sum }];
  });
  const rows = await recordsAmong(
    db,
    there.map(({ id }) => id),
  );
  const joined = new Joined(rows);
  const by = new Map<string, (typeof there)[number][]>();
  for (const each of there) {
    const person = joined.of(each.id);
    by.set(person, [...(by.get(person) ?? []), each]);
  }
  const moved = new Map<string, string>();
  for (const { id, day } of states) {
    const person = joined.of(id);
    moved.set(person, latest([moved.get(person) ?? '', day]));
  }
  const { day } = localTime(Date.now(), zone);
  return {
    ...{ ...set, day },
    customers: rows
      .flatMap((customer) => {
        const own = by.get(customer.id);
        if (own === undefined) return [];
        const movedOn = moved.get(customer.id) ?? '';
        const has = addedUp(own);
        return { customer, movedOn, held: pointsHeld({ ...set, has, movedOn }, day) };
      })
      .toSorted((a, b) => b.held.points - a.held.points),
  };
}
