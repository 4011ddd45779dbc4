/** What the slip's customer has of points and rewards, and what a way would take of them now. */
import { localTime } from '$lib/core/event/local-time';
import { rewardsOf, type PointsFacts, type RewardHeld } from '$lib/core/points/points-facts';
import type { PromotionPart } from '$lib/core/points/promotion-part';
import type { PromotionRefusal } from '$lib/core/points/promotion-part';
import type { WayToPay } from '$lib/core/payment/ways';
import { promotionOn } from '$lib/core/sale/take-part';
import { live } from '$lib/device/live.svelte';
import { pointsFacts } from '$lib/device/points';
import type { Paying } from './paying.svelte';

export type WouldGive =
  PromotionPart | { readonly ok: false; readonly refusal: PromotionRefusal } | null;

export class Promotions {
  readonly #facts;

  constructor(readonly paying: Paying) {
    const { stall } = paying;
    this.#facts = live(
      () => {
        const { customer, lines } = stall.slip.current;
        const items = lines.map(({ item }) => item);
        return () =>
          customer === undefined ? undefined : pointsFacts(stall.db, customer.id, items);
      },
      undefined as PointsFacts | undefined,
    );
  }

  get facts(): PointsFacts | undefined {
    return this.#facts.value;
  }

  get day(): string {
    const { event, business } = this.paying.stall;
    return localTime(Date.now(), event?.timeZone ?? business.timeZone).day;
  }

  /** Rewards that are on, those that the customer has first. */
  get rewards(): readonly RewardHeld[] {
    return this.facts === undefined
      ? []
      : rewardsOf(this.facts, this.day).toSorted((a, b) => b.times - a.times);
  }

  /** @param amount Minor units; null for all that it pays. */
  would(way: WayToPay, amount: number | null, reference = ''): WouldGive {
    const { stall, left, tip } = this.paying;
    const { quote, current } = stall.slip;
    if (quote === null || this.facts === undefined) return null;
    return promotionOn(current, quote, current.fixed?.taxes ?? stall.taxes, {
      ...{ method: way.method, amount, reference, tip, left, facts: this.facts, day: this.day },
      most: stall.isOutOfTouch ? way.offlineMost : null,
    });
  }
}
