/** Points and rewards as the vendor set them up: what brings them, what they are worth, when they run out. */
import type { Row } from '../books/tables';
import type { Immutable } from '../daybook/kind';
import type { BodyOf } from '../daybook/kinds';
import { fraction, roundToMinor } from '../money/fraction';

export type PointsRule = Immutable<BodyOf<'business.points'>>;

/** As long as nothing was set up. */
export const NO_POINTS: PointsRule = {
  ...{ isOn: false, per: 100, points: 1, worth: 1000, lowersTax: true, lasts: 0 },
};

export const pointsRuleOf = (
  business: Pick<Row<'businesses'>, 'pointsRule'> | undefined,
): PointsRule => business?.pointsRule ?? NO_POINTS;

/** What so many points pay, `R(points × worth)`; minor units. */
export const worthOf = (points: number, { worth }: Pick<PointsRule, 'worth'>): number =>
  roundToMinor(fraction(BigInt(points) * BigInt(worth), 1000));

/** How many whole points pay for so much at most. Minor units. */
export function pointsFor(amount: number, rule: Pick<PointsRule, 'worth'>): number {
  const whole = Number((BigInt(amount) * 1000n) / BigInt(rule.worth));
  // Halves are rounded up: one more may still come to no more than that.
  return worthOf(whole + 1, rule) <= amount ? whole + 1 : whole;
}

/** Whether points that moved last on a day can be spent no more. Days are local, ISO 8601; empty for never. */
export function ranOut({ lasts }: PointsRule, movedOn: string, day: string): boolean {
  if (lasts === 0 || movedOn === '') return false;
  const last = Date.parse(`${movedOn}T00:00:00Z`) + lasts * DAY;
  return new Date(last).toISOString().slice(0, 10) < day;
}
const DAY = 86_400_000;

export type Reward = Row<'rewards'>;

/** Spending counts for it, and it can be used: on its days, as long as it is not put away. */
export const isOn = (
  { isActive, from, until, setStamp }: Pick<Reward, 'isActive' | 'from' | 'until' | 'setStamp'>,
  day: string,
): boolean =>
  isActive && setStamp !== '' && (from === '' || from <= day) && (until === '' || until >= day);

/** How many of a reward somebody has who has spent so much towards it. Minor units. */
export const timesReached = (toward: number, { spend }: Pick<Reward, 'spend'>): number =>
  toward <= 0 ? 0 : Math.floor(toward / spend);

/** Goods as far as points and rewards ask for them. */
export interface EarningGoods {
  readonly earnsPoints: boolean;
  readonly category: string;
}

/** A line as far as they ask for it. */
export interface EarningLine {
  readonly item: string | null;
  /** With tax; minor units. */
  readonly total: number;
  readonly account?: string | null | undefined;
}

/** Goods, and not what is paid in on an account; what is not listed is in no category, and earns. */
const goodsOf = (
  { item, account }: EarningLine,
  goods: ReadonlyMap<string, EarningGoods>,
): EarningGoods | null => {
  if (account != null) return null;
  const known = item === null ? undefined : goods.get(item);
  return known ?? { earnsPoints: true, category: '' };
};

export const earns = (line: EarningLine, goods: ReadonlyMap<string, EarningGoods>): boolean =>
  goodsOf(line, goods)?.earnsPoints === true;

/** Whether a reward counts for what is sold with a line: for all goods that earn, or for those of its categories. */
export function countsFor(
  line: EarningLine,
  { categories }: Pick<Reward, 'categories'>,
  goods: ReadonlyMap<string, EarningGoods>,
): boolean {
  const of = goodsOf(line, goods);
  if (of === null) return false;
  return categories.length === 0 ? of.earnsPoints : categories.includes(of.category);
}
