/** A part of a payment by points or by a reward: how much it clears, what is taken for it, and which taxes it lowers. */
import type { BodyOf } from '../daybook/kinds';
import { sum } from '../money/units';
import { loweredBy } from './lowered';
import { rewardsOf, spendablePoints, type PointsFacts } from './points-facts';
import { countsFor, isOn, pointsFor, worthOf, type EarningLine } from './points-rule';
import { isPromotion, POINTS } from './promotion-methods';

export type PromotionRefusal =
  | { readonly code: 'held/no-customer' }
  | { readonly code: 'held/no-tip' }
  | { readonly code: 'held/offline-most'; readonly most: number }
  | OwnPromotionRefusal;
/** What nothing else is refused for. */
export type OwnPromotionRefusal =
  | { readonly code: 'points/none' }
  /** They pay before such a voucher does. */
  | { readonly code: 'points/after-voucher' }
  /** They moved last too long ago. */
  | { readonly code: 'points/over' }
  /** What is left to pay, or what may be taken, is less than a point is worth. */
  | { readonly code: 'points/too-little' }
  /** What points pay at most; minor units. */
  | { readonly code: 'points/less'; readonly left: number }
  | { readonly code: 'reward/unknown' }
  | { readonly code: 'reward/not-on'; readonly name: string }
  /** So much is still to be spent until then; minor units. */
  | { readonly code: 'reward/not-reached'; readonly name: string; readonly toGo: number }
  | { readonly code: 'reward/no-goods'; readonly name: string };

/** Sale so far, as this part finds it. Minor units. */
export interface AskPromotion {
  readonly method: string;
  readonly customer: string | null;
  /** The reward. */
  readonly reference: string;
  /** What was asked for; null is all that it pays. */
  readonly amount: number | null;
  readonly tip: number;
  /** Still to pay, of the slip or of the share. */
  readonly left: number;
  readonly lines: readonly EarningLine[];
  /** What the sale comes to with tax, and its taxes. */
  readonly total: number;
  readonly taxes: readonly {
    readonly id: string;
    readonly rate: string;
    readonly amount: number;
    readonly base: number;
  }[];
  /** What each such part of it cleared before. */
  readonly before: readonly number[];
  /** A voucher for goods of one tax paid of it already: what is left are not all goods alike. */
  readonly isAfterVoucher: boolean;
  readonly facts: PointsFacts | null | undefined;
  /** With no network, what is taken at most of what others may spend too; null for any amount. */
  readonly most: number | null;
  /** Local, ISO 8601. */
  readonly day: string;
}

export interface PromotionPart {
  readonly ok: true;
  readonly amount: number;
  readonly promotion: NonNullable<BodyOf<'payment.taken'>['promotion']>;
}

type Refused = { readonly ok: false; readonly refusal: PromotionRefusal };

/** Null for a way that is paid otherwise. */
export function promotionPart(asked: AskPromotion): PromotionPart | Refused | null {
  const { method, customer, facts, tip } = asked;
  if (!isPromotion(method)) return null;
  if (tip > 0) return refuse({ code: 'held/no-tip' });
  if (customer === null) return refuse({ code: 'held/no-customer' });
  if (asked.isAfterVoucher) return refuse({ code: 'points/after-voucher' });
  if (facts == null) return refuse({ code: 'points/none' });
  return method === 'points' ? byPoints(asked, facts) : byReward(asked, facts);
}

function byPoints(asked: AskPromotion, facts: PointsFacts): PromotionPart | Refused {
  const { amount, day, left, most } = asked;
  const { rule, has } = facts;
  const there = spendablePoints(facts, day);
  if (there === 0)
    return refuse({ code: (has.get(POINTS) ?? 0) > 0 ? 'points/over' : 'points/none' });
  const ofGoods = sum(asked.lines.flatMap(({ account, total }) => (account == null ? total : [])));
  const payable = Math.min(left, ofGoods - sum(asked.before));
  const known = Math.min(worthOf(there, rule), payable);
  if (amount !== null && amount > known) return refuse({ code: 'points/less', left: known });
  if (amount !== null && most !== null && amount > most)
    return refuse({ code: 'held/offline-most', most });
  const upTo = amount ?? Math.min(known, most ?? known);
  const points = Math.min(there, upTo <= 0 ? 0 : pointsFor(upTo, rule));
  const clears = worthOf(points, rule);
  if (clears <= 0) return refuse({ code: 'points/too-little' });
  return taken(asked, facts, clears, { of: POINTS, taken: points });
}

function byReward(asked: AskPromotion, facts: PointsFacts): PromotionPart | Refused {
  const { reference, day, left, lines } = asked;
  const reward = facts.rewards.find(({ id }) => id === reference);
  if (reward === undefined) return refuse({ code: 'reward/unknown' });
  const { id, name, value, spend } = reward;
  if (!isOn(reward, day)) return refuse({ code: 'reward/not-on', name });
  const held = rewardsOf(facts, day).find((each) => each.reward.id === id);
  if (held === undefined || held.times === 0)
    return refuse({ code: 'reward/not-reached', name, toGo: held?.toGo ?? spend });
  const counting = sum(
    lines.flatMap((line) => (countsFor(line, reward, facts.goods) ? line.total : [])),
  );
  const goods = counting - sum(asked.before);
  if (goods <= 0) return refuse({ code: 'reward/no-goods', name });
  return taken(asked, facts, Math.min(value, goods, left), { of: id, taken: spend });
}

function taken(
  { total, taxes, before }: AskPromotion,
  { rule, has }: PointsFacts,
  clears: number,
  from: { readonly of: string; readonly taken: number },
): PromotionPart {
  const lowered = rule.lowersTax ? (loweredBy(total, taxes, [...before, clears]).at(-1) ?? []) : [];
  return {
    ok: true,
    amount: clears,
    promotion: {
      ...from,
      after: (has.get(from.of) ?? 0) - from.taken,
      lowers: lowered.flatMap(({ id, amount, base }) => {
        const tax = taxes.find((each) => each.id === id);
        if (tax === undefined || (amount === 0 && base === 0)) return [];
        return { id, rate: tax.rate, amount, base };
      }),
    },
  };
}

const refuse = (refusal: PromotionRefusal): Refused => ({ ok: false, refusal });
