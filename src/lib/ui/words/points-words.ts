/** What is said of points and rewards. */
import type { PointsHeld, RewardHeld } from '../../core/points/points-facts';
import type { Earned } from '../../core/points/earned';
import type { OwnPromotionRefusal } from '../../core/points/promotion-part';
import type { Reward } from '../../core/points/points-rule';
import type { PointsRefusal } from '../../core/points/set-points';
import { shortDayWords } from './date-words';
import type { MoneyWords } from './money-words';

export const pointsFigure = (points: number, { locale }: Pick<MoneyWords, 'locale'>): string =>
  new Intl.NumberFormat(locale).format(points).replace('-', '−');

export const pointsWords = (points: number, money: Pick<MoneyWords, 'locale'>): string =>
  `${pointsFigure(points, money)} ${Math.abs(points) === 1 ? 'point' : 'points'}`;

/** Beside a customer's name: points with what they pay, and rewards that can be used now. */
export const pointsHeldWords = (
  { points, worth, areOver, rewards }: PointsHeld,
  money: MoneyWords,
): string[] => [
  ...(points === 0
    ? []
    : [
        areOver
          ? `${pointsWords(points, money)}, run out`
          : `${pointsWords(points, money)}${worth > 0 ? ` for ${money.text(worth)}` : ''}`,
      ]),
  ...rewards.flatMap(({ reward, times }) =>
    times === 0 ? [] : `reward ${reward.name}${times === 1 ? '' : ` ${String(times)} times`}`,
  ),
];

/** How far somebody is with a reward. */
export const rewardHeldWords = ({ reward, times, toGo }: RewardHeld, money: MoneyWords): string =>
  times > 0
    ? `${times === 1 ? 'reached' : `reached ${String(times)} times`}: ${money.text(reward.value)} off`
    : `${money.text(toGo)} to go`;

/** @param nameOf What people call a category. */
export function rewardWords(
  reward: Reward,
  nameOf: (category: string) => string,
  money: MoneyWords,
): string {
  const { spend, value, categories, from, until, isActive } = reward;
  return [
    `${money.text(value)} off for each ${money.text(spend)} spent`,
    categories.length === 0 ? '' : `on ${categories.map(nameOf).join(', ')}`,
    from === '' ? '' : `from ${shortDayWords(from, money.locale)}`,
    until === '' ? '' : `until ${shortDayWords(until, money.locale)}`,
    isActive ? '' : 'put away',
  ]
    .filter((part) => part !== '')
    .join(' · ');
}

/** What a sale brought, for whoever sells and on its receipt; a line each. */
export const earnedWords = ({ points, after, rewards }: Earned, money: MoneyWords): string[] => [
  ...(points === 0
    ? []
    : [`${pointsWords(points, money)} for this, ${pointsWords(after, money)} now`]),
  ...rewards.map(
    ({ name, value, times }) =>
      `Reward reached${times === 1 ? '' : ` ${String(times)} times`}: ${name}, ${money.text(value)} off next time`,
  ),
];

export function promotionRefusalWords(refusal: OwnPromotionRefusal, money: MoneyWords): string {
  switch (refusal.code) {
    case 'points/none':
      return 'This customer has no points.';
    case 'points/after-voucher':
      return 'Points and rewards pay before a voucher that was sold with its tax: take the voucher’s part back first.';
    case 'points/over':
      return 'Their points have run out.';
    case 'points/too-little':
      return 'There is nothing here that a whole point would pay for.';
    case 'points/less':
      return `Their points pay ${money.text(refusal.left)} of this at most; take that, and the rest another way.`;
    case 'reward/unknown':
      return 'Choose which of their rewards.';
    case 'reward/not-on':
      return `${refusal.name} cannot be used today.`;
    case 'reward/not-reached':
      return `For ${refusal.name} they have ${money.text(refusal.toGo)} still to spend.`;
    case 'reward/no-goods':
      return `Nothing on the slip counts for ${refusal.name}.`;
  }
}

export function setPointsWords(
  refusal: PointsRefusal | { readonly code: 'slip/gone' },
  money: MoneyWords,
): string {
  switch (refusal.code) {
    case 'slip/gone':
      return 'It was changed in another window; look at it again.';
    case 'points/amount-wrong':
      return `“${refusal.typed}” is not an amount above nothing; type figures such as 10.00.`;
    case 'points/whole-wrong':
      return `“${refusal.typed}” is no whole number of points; type figures from 1 to ${String(refusal.most)}.`;
    case 'points/worth-wrong':
      return `“${refusal.typed}” is not what a point could be worth; type an amount such as 0.01 or 0.005.`;
    case 'points/days-wrong':
      return `“${refusal.typed}” is no number of days; type figures such as 365, or leave it empty.`;
    case 'reward/no-name':
      return 'Give it a name, as it should stand on receipts.';
    case 'reward/taken':
      return `There is a reward called ${refusal.name} already.`;
    case 'reward/days-wrong':
      return 'The last day is before the first.';
    case 'points/no-reason':
      return 'Say why; “from their old card” will do.';
    case 'points/fewer':
      return `They have only ${pointsWords(refusal.has, money)}.`;
  }
}
