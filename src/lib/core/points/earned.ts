/** What a sale brings its customer: points, and what counts towards each reward, line by line (docs/rules.md). */
import { shareByWeights } from '../money/apportion';
import { sum } from '../money/units';
import type { PointsFacts } from './points-facts';
import {
  countsFor,
  earns,
  isOn,
  timesReached,
  type EarningGoods,
  type EarningLine,
  type PointsRule,
  type Reward,
} from './points-rule';
import { POINTS } from './promotion-methods';

/** Of one line; what is nothing is left out. */
export interface LineEarned {
  readonly points: number;
  /** Minor units, by reward. */
  readonly toward: Readonly<Record<string, number>>;
}

/**
 * `⌊eligible / per⌋ × points`, eligible being the totals with tax of lines that earn, less what points and rewards paid;
 * each line has its share, so that it goes back with the line.
 *
 * @param lines All lines of the sale; minor units.
 * @param cleared What of it points and rewards paid.
 * @param day Local, ISO 8601.
 */
export function earnedBy(
  lines: readonly EarningLine[],
  cleared: number,
  { rule, rewards, goods }: Pick<PointsFacts, 'rule' | 'rewards' | 'goods'>,
  day: string,
): readonly LineEarned[] {
  const points = rule.isOn ? pointsOn(lines, cleared, rule, goods) : lines.map(() => 0);
  const toward = rewards
    .filter((reward) => isOn(reward, day))
    .map((reward) => ({ id: reward.id, shares: towardOn(lines, cleared, reward, goods) }));
  return lines.map((_line, at) => ({
    points: points[at] ?? 0,
    toward: Object.fromEntries(
      toward.flatMap(({ id, shares }) => {
        const share = shares[at] ?? 0;
        return share === 0 ? [] : [[id, share]];
      }),
    ),
  }));
}

export function pointsOn(
  lines: readonly EarningLine[],
  cleared: number,
  { per, points }: Pick<PointsRule, 'per' | 'points'>,
  goods: ReadonlyMap<string, EarningGoods>,
): readonly number[] {
  const isOf = (line: EarningLine): boolean => earns(line, goods);
  return shared(lines, isOf, Math.floor(eligible(lines, isOf, cleared) / per) * points);
}

export function towardOn(
  lines: readonly EarningLine[],
  cleared: number,
  reward: Pick<Reward, 'categories'>,
  goods: ReadonlyMap<string, EarningGoods>,
): readonly number[] {
  const isOf = (line: EarningLine): boolean => countsFor(line, reward, goods);
  return shared(lines, isOf, eligible(lines, isOf, cleared));
}

const eligible = (
  lines: readonly EarningLine[],
  isOf: (line: EarningLine) => boolean,
  cleared: number,
): number => Math.max(0, sum(lines.filter(isOf).map(({ total }) => total)) - cleared);

/** Over the lines that bring it, in proportion to what they come to. */
function shared(
  lines: readonly EarningLine[],
  isOf: (line: EarningLine) => boolean,
  amount: number,
): readonly number[] {
  const weights = lines.map((line) => (isOf(line) ? Math.max(0, line.total) : 0));
  return amount === 0 || sum(weights) === 0 ? lines.map(() => 0) : shareByWeights(amount, weights);
}

/** What the customer is told of it: how many points, how many now, and each reward that it reached. */
export interface Earned {
  readonly points: number;
  /** As far as the device knew. */
  readonly after: number;
  readonly rewards: readonly {
    readonly reward: string;
    readonly name: string;
    /** Minor units. */
    readonly value: number;
    readonly times: number;
  }[];
}

/** @param facts With what the customer had before, less what paid for this sale. */
export function earnedInAll(
  lines: readonly LineEarned[],
  { has, rewards }: Pick<PointsFacts, 'has' | 'rewards'>,
): Earned {
  const points = sum(lines.map((line) => line.points));
  return {
    points,
    after: (has.get(POINTS) ?? 0) + points,
    rewards: rewards.flatMap((reward) => {
      const { id, name, value } = reward;
      const before = has.get(id) ?? 0;
      const now = before + sum(lines.map(({ toward }) => toward[id] ?? 0));
      const times = timesReached(now, reward) - timesReached(before, reward);
      return times <= 0 ? [] : [{ reward: id, name, value, times }];
    }),
  };
}
