/** What is known of points and rewards where a slip is paid: as they are set up, and what its customer has of each. */
import {
  isOn,
  ranOut,
  timesReached,
  worthOf,
  type EarningGoods,
  type PointsRule,
  type Reward,
} from './points-rule';
import { POINTS } from './promotion-methods';

export interface PointsFacts {
  readonly rule: PointsRule;
  readonly rewards: readonly Reward[];
  /** What the customer has: points, and minor units spent towards each reward, by its id. */
  readonly has: ReadonlyMap<string, number>;
  /** When their points moved last: local day, ISO 8601; empty for never. */
  readonly movedOn: string;
  /** Goods on the slip, by item. */
  readonly goods: ReadonlyMap<string, EarningGoods>;
}

/** Points that can be spent on a day. */
export const spendablePoints = (
  { rule, has, movedOn }: Pick<PointsFacts, 'rule' | 'has' | 'movedOn'>,
  day: string,
): number => (ranOut(rule, movedOn, day) ? 0 : Math.max(0, has.get(POINTS) ?? 0));

export interface RewardHeld {
  readonly reward: Reward;
  /** How often it can be used. */
  readonly times: number;
  /** What is still to spend until the next; minor units. */
  readonly toGo: number;
}

/** Rewards that are on, with what the customer has of each. */
export const rewardsOf = (
  { rewards, has }: Pick<PointsFacts, 'rewards' | 'has'>,
  day: string,
): readonly RewardHeld[] =>
  rewards
    .filter((reward) => isOn(reward, day))
    .toSorted((a, b) => (a.name < b.name ? -1 : 1))
    .map((reward) => {
      const toward = has.get(reward.id) ?? 0;
      const times = timesReached(toward, reward);
      return { reward, times, toGo: (times + 1) * reward.spend - toward };
    });

/** What a customer has beside their name. */
export interface PointsHeld {
  readonly points: number;
  /** What they pay; minor units. */
  readonly worth: number;
  /** They could be spent until lately. */
  readonly areOver: boolean;
  readonly rewards: readonly RewardHeld[];
}

export function pointsHeld(facts: Omit<PointsFacts, 'goods'>, day: string): PointsHeld {
  const points = facts.has.get(POINTS) ?? 0;
  return {
    points,
    worth: worthOf(spendablePoints(facts, day), facts.rule),
    areOver: points > 0 && ranOut(facts.rule, facts.movedOn, day),
    rewards: rewardsOf(facts, day),
  };
}
