/** Points and rewards: what goods bring, what is paid by them, and which taxes that lowers, as it was set up then or lately. */
import type { Row } from '../books/tables';
import type { EntryOf } from '../daybook/kinds';
import { sum } from '../money/units';
import { pointsOn, towardOn } from '../points/earned';
import { loweredBy } from '../points/lowered';
import {
  countsFor,
  isOn,
  NO_POINTS,
  ranOut,
  worthOf,
  type EarningGoods,
  type PointsRule,
} from '../points/points-rule';
import { POINTS } from '../points/promotion-methods';
import type { Evidence } from './evidence';
import type { Doubt } from './verdict';

type Sale = EntryOf<'sale.rung'>;

const DAY = 86_400_000;
/** Zones of clocks are a day apart at most. */
const near = (at: string, days: number): string =>
  new Date(Date.parse(at) + days * DAY).toISOString().slice(0, 10);

const rulesThen = (stamp: string, { history, business }: Evidence): readonly PointsRule[] => {
  const rules = history.inForce('business.points', business, stamp);
  return rules.length === 0 ? [NO_POINTS] : rules;
};

const has = ({ books, joined }: Evidence, customer: string, of: string): number =>
  sum(
    joined
      .accounts(`points:${customer}`)
      .map((account) => books.row('pointSums', `${account} ${of}`)?.quantity ?? 0),
  );

/** The day on which their points moved last; empty for never. */
const lastMoved = ({ books, joined }: Evidence, customer: string): string =>
  joined
    .records(customer)
    .map((id) => books.row('pointStates', id)?.day ?? '')
    .sort()
    .at(-1) ?? '';

/** A part that a customer's points or their reward paid: for what they are worth, and there. */
export function promotionDoubt(
  { at, stamp, body }: EntryOf<'payment.taken'>,
  evidence: Evidence,
): Doubt | null {
  const { promotion, customer, clears } = body;
  if (promotion === undefined || customer === null) return null;
  const { of, taken } = promotion;
  const fault =
    of === POINTS
      ? worthFault(taken, clears, customer, { at, stamp }, evidence)
      : rewardFault(of, taken, clears, { at, stamp }, evidence);
  if (fault !== null) return fault;
  const there = has(evidence, customer, of);
  return taken > there
    ? { code: 'points/overspent', found: taken, wanted: Math.max(0, there) }
    : null;
}

interface Then {
  readonly at: string;
  readonly stamp: string;
}

function worthFault(
  points: number,
  clears: number,
  customer: string,
  { at, stamp }: Then,
  evidence: Evidence,
): Doubt | null {
  const rules = rulesThen(stamp, evidence);
  if (!rules.some((rule) => worthOf(points, rule) === clears))
    return { code: 'payment/points', found: clears, wanted: worthOf(points, rules[0]!) };
  const movedOn = lastMoved(evidence, customer);
  return rules.every((rule) => ranOut(rule, movedOn, near(at, -1)))
    ? { code: 'payment/points-over', found: movedOn }
    : null;
}

function rewardFault(
  reward: string,
  taken: number,
  clears: number,
  { at, stamp }: Then,
  { history }: Evidence,
): Doubt | null {
  const versions = history.inForce('reward.set', reward, stamp);
  const days = [near(at, -1), near(at, 0), near(at, 1)];
  const isRight = versions.some(
    (each) =>
      each.spend === taken &&
      clears <= each.value &&
      days.some((day) => isOn({ ...each, setStamp: stamp }, day)),
  );
  return isRight
    ? null
    : { code: 'payment/reward', found: clears, wanted: versions[0]?.value ?? 0 };
}

/** What it brings, and what was paid of it by points and rewards. */
export const pointsDoubt = (entry: Sale, evidence: Evidence): Doubt | null => {
  const parts = entry.body.payments.flatMap((id) => evidence.books.row('payments', id) ?? []);
  const given = parts.filter(({ promotion }) => promotion != null);
  return (
    earnedDoubt(entry, sum(given.map(({ clears }) => clears)), evidence) ??
    (given.length === 0 ? null : givenDoubt(entry, given, evidence))
  );
};

/** No more than the goods bring; whoever has not heard of a rule yet gives less. */
function earnedDoubt({ stamp, body }: Sale, cleared: number, evidence: Evidence): Doubt | null {
  const { lines, day } = body;
  const points = sum(lines.map((line) => line.points ?? 0));
  const goods = goodsThen(lines, stamp, evidence);
  if (points > 0) {
    const most = Math.max(
      0,
      ...rulesThen(stamp, evidence)
        .filter(({ isOn: areGiven }) => areGiven)
        .flatMap((rule) => goods.map((each) => sum(pointsOn(lines, cleared, rule, each)))),
    );
    if (points > most) return { code: 'sale/points', found: points, wanted: most };
  }
  for (const id of new Set(lines.flatMap(({ toward = {} }) => Object.keys(toward)))) {
    const found = sum(lines.map(({ toward = {} }) => toward[id] ?? 0));
    const most = Math.max(
      0,
      ...evidence.history
        .inForce('reward.set', id, stamp)
        .filter((reward) => isOn({ ...reward, setStamp: stamp }, day))
        .flatMap((reward) => goods.map((each) => sum(towardOn(lines, cleared, reward, each)))),
    );
    if (found > most) return { code: 'sale/points', found, wanted: most };
  }
  return null;
}

/** The goods as they are set up, and as they were while they brought something. */
function goodsThen(
  lines: Sale['body']['lines'],
  stamp: string,
  { history }: Evidence,
): readonly ReadonlyMap<string, EarningGoods>[] {
  const versions = [...new Set(lines.flatMap(({ item }) => item ?? []))].map(
    (item) => [item, history.inForce('item.set', item, stamp)] as const,
  );
  const last = versions.flatMap(([item, all]) => (all[0] === undefined ? [] : [[item, all[0]]]));
  const first = versions.flatMap(([item, all]) => {
    const { category = '' } = all.at(-1) ?? {};
    return all.length === 0
      ? []
      : [[item, { category, earnsPoints: all.some(({ earnsPoints }) => earnsPoints) }]];
  });
  return [new Map(last as [string, EarningGoods][]), new Map(first as [string, EarningGoods][])];
}

/** Their own of whoever buys, for goods alone; and the taxes of the sale are lower by their share. */
function givenDoubt(
  { stamp, body }: Sale,
  given: readonly Row<'payments'>[],
  evidence: Evidence,
): Doubt | null {
  const { lines, total, taxes, customer = null } = body;
  const others = given.find((part) => !evidence.joined.isSame(part.customer, customer));
  if (others !== undefined)
    return { code: 'payment/account', found: others.customer ?? '', wanted: customer ?? '' };
  const cleared = sum(given.map(({ clears }) => clears));
  const goods = sum(lines.map((line) => (line.account === undefined ? line.total : 0)));
  if (cleared > goods) return { code: 'sale/promotions', found: cleared, wanted: goods };
  const known = goodsThen(lines, stamp, evidence);
  for (const { promotion, clears } of given) {
    if (promotion == null || promotion.of === POINTS) continue;
    const most = Math.max(
      0,
      ...evidence.history
        .inForce('reward.set', promotion.of, stamp)
        .flatMap((reward) =>
          known.map((each) =>
            sum(lines.map((line) => (countsFor(line, reward, each) ? line.total : 0))),
          ),
        ),
    );
    if (clears > most) return { code: 'sale/promotions', found: clears, wanted: most };
  }
  const lowers = given.flatMap(({ promotion }) => promotion?.lowers ?? []);
  const isRight = rulesThen(stamp, evidence).some((rule) => {
    if (!rule.lowersTax) return lowers.length === 0;
    const wanted = cleared === 0 ? [] : (loweredBy(total, taxes, [cleared])[0] ?? []);
    return [...new Set([...lowers, ...taxes].map(({ id }) => id))].every((id) => {
      const tax = taxes.find((each) => each.id === id);
      const own = lowers.filter((each) => each.id === id);
      const should = wanted.find((each) => each.id === id);
      // A part that was given back may have shifted one minor unit.
      const isNear = (found: number, of = 0): boolean => Math.abs(found - of) <= 1;
      return (
        own.every(({ rate }) => rate === tax?.rate) &&
        isNear(sum(own.map(({ amount }) => amount)), should?.amount) &&
        isNear(sum(own.map(({ base }) => base)), should?.base)
      );
    });
  });
  return isRight ? null : { code: 'sale/lowered', found: sum(lowers.map(({ amount }) => amount)) };
}

/** Given to a customer that there is; taken of what they have. */
export function judgePointsMoved(
  { body }: EntryOf<'points.moved'>,
  evidence: Evidence,
): Doubt | null {
  const { customer, of, quantity } = body;
  const { history } = evidence;
  const isThere =
    history.knows('customer.set', customer) && (of === POINTS || history.knows('reward.set', of));
  if (!isThere) return { code: 'points/unknown', found: of === POINTS ? customer : of };
  const there = has(evidence, customer, of);
  return quantity < 0 && -quantity > there
    ? { code: 'points/less', found: -quantity, wanted: Math.max(0, there) }
    : null;
}
