/** What the slip's customer has of points and rewards, and what a way would take of them now. */
import { localTime } from '$lib/core/event/local-time';
import { rewardsOf, type PointsFacts, type RewardHeld } from '$lib/core/points/points-facts';
import type { Reward } from '$lib/core/points/points-rule';
import type { PromotionPart, PromotionRefusal } from '$lib/core/points/promotion-part';
import type { WayToPay } from '$lib/core/payment/ways';
import { promotionOn } from '$lib/core/sale/take-part';
import { live } from '$lib/device/live.svelte';
import { pointsFacts } from '$lib/device/points';
import type { Stall } from '../../stall.svelte';
import type { Paying } from './paying.svelte';

export type WouldGive =
  | PromotionPart
  | { readonly ok: false; readonly refusal: PromotionRefusal }
  | null;

/** A reward that the customer has, and what it would pay of this slip. */
export interface RewardToAsk {
  readonly way: WayToPay;
  readonly reward: Reward;
  /** Minor units. */
  readonly amount: number;
}

const dayOf = ({ event, business }: Stall): string =>
  localTime(Date.now(), event?.timeZone ?? business.timeZone).day;

/** @param left Still to pay, of the slip or of the share. Minor units. */
function wouldGive(
  stall: Stall,
  facts: PointsFacts,
  way: WayToPay,
  asked: { readonly amount: number | null; readonly reference: string; readonly left: number },
  tip = 0,
): WouldGive {
  const { quote, current } = stall.slip;
  if (quote === null) return null;
  return promotionOn(current, quote, current.fixed?.taxes ?? stall.taxes, {
    ...{ ...asked, method: way.method, tip, facts, day: dayOf(stall) },
    most: stall.isOutOfTouch ? way.offlineMost : null,
  });
}

/** Rewards that can be used for what is on the slip, where the event takes any. */
function rewardsToAsk(stall: Stall, facts: PointsFacts, left: number): readonly RewardToAsk[] {
  const way = stall.ways.find(({ method }) => method === 'reward');
  if (way === undefined) return [];
  return rewardsOf(facts, dayOf(stall)).flatMap(({ reward, times }) => {
    if (times === 0) return [];
    const pays = wouldGive(stall, facts, way, { amount: null, reference: reward.id, left });
    return pays?.ok === true ? [{ way, reward, amount: pays.amount }] : [];
  });
}

const factsOf = (stall: Stall): (() => Promise<PointsFacts> | undefined) => {
  const { customer, lines } = stall.slip.current;
  const items = lines.map(({ item }) => item);
  return () => (customer === undefined ? undefined : pointsFacts(stall.db, customer.id, items));
};

export class Promotions {
  readonly #facts;

  /** @param paying The payment under way, or the slip before there is one. */
  constructor(readonly paying: Pick<Paying, 'stall' | 'left' | 'tip'>) {
    this.#facts = live(() => factsOf(paying.stall), undefined as PointsFacts | undefined);
  }

  get facts(): PointsFacts | undefined {
    return this.#facts.value;
  }

  get day(): string {
    return dayOf(this.paying.stall);
  }

  /** Rewards that are on, those that the customer has first. */
  get rewards(): readonly RewardHeld[] {
    return this.facts === undefined
      ? []
      : rewardsOf(this.facts, this.day).toSorted((a, b) => b.times - a.times);
  }

  /** Rewards that somebody is to be asked about before anything is charged. */
  toAsk(): readonly RewardToAsk[] {
    const { stall, left } = this.paying;
    return this.facts === undefined ? [] : rewardsToAsk(stall, this.facts, left);
  }

  /** @param amount Minor units; null for all that it pays. */
  would(way: WayToPay, amount: number | null, reference = ''): WouldGive {
    const { stall, left, tip } = this.paying;
    return this.facts === undefined
      ? null
      : wouldGive(stall, this.facts, way, { amount, reference, left }, tip);
  }
}
