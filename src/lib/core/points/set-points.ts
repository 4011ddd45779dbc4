/** Setting points and rewards up, and moving points without a sale: commands. */
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';
import { readAmount } from '../money/amount-text';
import { readCost } from '../money/cost-text';
import type { PointsRule, Reward } from './points-rule';
import { POINTS } from './promotion-methods';

/** The rule as its form holds it. */
export interface TypedPoints {
  readonly isOn: boolean;
  /** An amount. */
  readonly per: string;
  readonly points: string;
  /** What one point is worth: an amount, with more decimals than the currency has where it is less. */
  readonly worth: string;
  readonly lowersTax: boolean;
  /** Days; empty is for good. */
  readonly lasts: string;
}

export interface TypedReward {
  readonly name: string;
  readonly spend: string;
  readonly value: string;
  readonly from: string;
  readonly until: string;
  readonly categories: readonly string[];
  readonly isActive: boolean;
}

export type PointsRefusal = { readonly field: string } & (
  | { readonly code: 'points/amount-wrong'; readonly typed: string }
  | { readonly code: 'points/whole-wrong'; readonly typed: string; readonly most: number }
  | { readonly code: 'points/worth-wrong'; readonly typed: string }
  | { readonly code: 'points/days-wrong'; readonly typed: string }
  | { readonly code: 'reward/no-name' }
  | { readonly code: 'reward/taken'; readonly name: string }
  | { readonly code: 'reward/days-wrong' }
  | { readonly code: 'points/no-reason' }
  /** Fewer are there than would be taken. */
  | { readonly code: 'points/fewer'; readonly has: number }
);

export type PointsOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[]; readonly id: string }
  | { readonly ok: false; readonly refusal: PointsRefusal };

const refuse = (refusal: PointsRefusal): PointsOutcome => ({ ok: false, refusal });

/** A hundred years. */
const MOST_DAYS = 36_500;
const MOST_POINTS = 100_000;
/** Thousandths of a minor unit. */
const MOST_WORTH = 100_000_000;

export function setPoints(
  newId: () => string,
  typed: TypedPoints,
  currency: string,
): PointsOutcome {
  const per = amountIn(typed.per, currency);
  if (per === null) return refuse({ code: 'points/amount-wrong', field: 'per', typed: typed.per });
  const points = wholeIn(typed.points, MOST_POINTS);
  if (points === null || points === 0)
    return refuse({
      ...{ code: 'points/whole-wrong', field: 'points', typed: typed.points, most: MOST_POINTS },
    });
  const worth = readCost(typed.worth, currency);
  if (worth === null || worth < 1 || worth > MOST_WORTH)
    return refuse({ code: 'points/worth-wrong', field: 'worth', typed: typed.worth });
  const lasts = typed.lasts.trim() === '' ? 0 : wholeIn(typed.lasts, MOST_DAYS);
  if (lasts === null)
    return refuse({ code: 'points/days-wrong', field: 'lasts', typed: typed.lasts });
  const { isOn, lowersTax } = typed;
  const body = { isOn, per, points, worth, lowersTax, lasts };
  return { ok: true, id: '', drafts: [draft('business.points', newId(), null, body)] };
}

export interface SetReward {
  readonly newId: () => string;
  /** Null for a new one. */
  readonly id: string | null;
  readonly typed: TypedReward;
  readonly rewards: readonly Reward[];
  readonly currency: string;
}

export function setReward({
  newId,
  id: known,
  typed,
  rewards,
  currency,
}: SetReward): PointsOutcome {
  const name = typed.name.trim().slice(0, 80);
  if (name === '') return refuse({ code: 'reward/no-name', field: 'name' });
  const isTaken = rewards.some(
    (each) => each.id !== known && each.isActive && each.name.toLowerCase() === name.toLowerCase(),
  );
  if (isTaken && typed.isActive) return refuse({ code: 'reward/taken', field: 'name', name });
  const [spend, value] = [amountIn(typed.spend, currency), amountIn(typed.value, currency)];
  if (spend === null)
    return refuse({ code: 'points/amount-wrong', field: 'spend', typed: typed.spend });
  if (value === null)
    return refuse({ code: 'points/amount-wrong', field: 'value', typed: typed.value });
  const { from, until, categories, isActive } = typed;
  if (from !== '' && until !== '' && until < from)
    return refuse({ code: 'reward/days-wrong', field: 'until' });
  const id = known ?? newId();
  const body = { id, name, spend, value, from, until, categories: [...categories], isActive };
  return { ok: true, id, drafts: [draft('reward.set', newId(), null, body)] };
}

export interface MovePoints {
  readonly newId: () => string;
  readonly customer: string;
  /** With a minus they are taken. */
  readonly typed: string;
  readonly reason: string;
  /** What the customer has. */
  readonly has: number;
}

export function movePoints({ newId, customer, typed, reason, has }: MovePoints): PointsOutcome {
  const text = typed.trim().replace('−', '-');
  const isTaken = text.startsWith('-');
  const much = wholeIn(text.replace(/^[-+]/, ''), MOST_MOVED);
  if (much === null || much === 0)
    return refuse({ code: 'points/whole-wrong', field: 'points', typed, most: MOST_MOVED });
  if (isTaken && much > Math.max(0, has))
    return refuse({ code: 'points/fewer', field: 'points', has });
  const why = reason.trim().slice(0, 200);
  if (why === '') return refuse({ code: 'points/no-reason', field: 'reason' });
  const body = { customer, of: POINTS, quantity: isTaken ? -much : much, reason: why } as const;
  return { ok: true, id: '', drafts: [draft('points.moved', newId(), null, body)] };
}
const MOST_MOVED = 999_999;

/** All that is left of those that ran out, each customer's by an entry of its own. */
export const takeRunOut = (
  newId: () => string,
  over: readonly { readonly customer: string; readonly points: number }[],
): readonly Draft[] =>
  over
    .filter(({ points }) => points > 0)
    .map(({ customer, points }) =>
      draft('points.moved', newId(), null, {
        ...{ customer, of: POINTS, quantity: -points, reason: 'They ran out' },
      }),
    );

function amountIn(typed: string, currency: string): number | null {
  const read = readAmount(typed, currency);
  return read.ok && read.amount > 0 ? read.amount : null;
}

function wholeIn(typed: string, most: number): number | null {
  const text = typed.trim();
  if (!/^\d{1,9}$/.test(text)) return null;
  const whole = Number(text);
  return whole > most ? null : whole;
}

/** What stands in the form of the rule. @param costText Thousandths as people type them. */
export const typedPoints = (
  rule: PointsRule,
  amountText: (minor: number) => string,
  worthText: (thousandths: number) => string,
): TypedPoints => ({
  ...{ isOn: rule.isOn, lowersTax: rule.lowersTax },
  per: amountText(rule.per),
  points: String(rule.points),
  worth: worthText(rule.worth),
  lasts: rule.lasts === 0 ? '' : String(rule.lasts),
});

export const typedReward = (
  reward: Reward | undefined,
  amountText: (minor: number) => string,
): TypedReward =>
  reward === undefined
    ? { name: '', spend: '', value: '', from: '', until: '', categories: [], isActive: true }
    : {
        ...{ name: reward.name, from: reward.from, until: reward.until },
        ...{ categories: reward.categories, isActive: reward.isActive },
        spend: amountText(reward.spend),
        value: amountText(reward.value),
      };
