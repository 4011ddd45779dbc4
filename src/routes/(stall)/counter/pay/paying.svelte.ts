/** The payment under way, as its screen sees it: whose share, how much is left, what was said. */
import { leftOfShares } from '$lib/core/payment/shares';
import type { WayToPay } from '$lib/core/payment/ways';
import { roundToStep } from '$lib/core/pricing/cash-step';
import type { Earned } from '$lib/core/points/earned';
import type { PaidPart } from '$lib/core/slip/open-slip';
import { wouldTake } from '$lib/core/sale/take-part';
import { refusalWords } from '$lib/ui/words/refusal-words';
import type { Stall } from '../../stall.svelte';
import { giveBack, takePartOf, type AskedPart, type TakenAtCounter } from '../take-payment';
import { faultWords } from '$lib/ui/words/fault-words';

export interface Finished {
  readonly number: string;
  readonly sale: string;
  readonly total: number;
  readonly change: number;
  readonly handed: number;
  /** The last part, if it was a card of somebody who is not here: its result is looked at. */
  readonly distant: PaidPart | null;
  /** Points and rewards that it brought. */
  readonly earned: Earned | null;
}

export class Paying {
  /** Which share is being paid, from 0. */
  #chosen = $state<number | null>(null);
  isBusy = $state(false);
  wrong = $state<string | null>(null);
  /** Change of a part that left something to pay, still to be said. */
  change = $state.raw<{ readonly change: number; readonly handed: number } | null>(null);
  done = $state.raw<Finished | null>(null);

  constructor(readonly stall: Stall) {}

  get shares() {
    return this.stall.slip.current.shares ?? [];
  }
  readonly leftOfEach: readonly number[] = $derived.by(() =>
    leftOfShares(this.shares, this.stall.slip.current.paid ?? []),
  );
  /** The share that is paid now: the chosen one, or the first with something left. */
  readonly share: number | null = $derived.by(() => {
    if (this.shares.length === 0) return null;
    const chosen = this.#chosen;
    if (chosen !== null && (this.leftOfEach[chosen] ?? 0) > 0) return chosen;
    const next = this.leftOfEach.findIndex((left) => left > 0);
    return next === -1 ? null : next;
  });
  choose(share: number): void {
    this.#chosen = share;
  }
  /** Minor units on the cash side: of the whole, or of the share that is paid now. */
  readonly left: number = $derived.by(() =>
    this.share === null
      ? this.stall.slip.left
      : Math.min(this.stall.slip.left, this.leftOfEach[this.share] ?? 0),
  );
  get tip(): number {
    return this.stall.slip.current.tip ?? 0;
  }
  /** What is due in notes and coins, the tip with it. */
  readonly cashDue: number = $derived.by(
    () => roundToStep(this.left, this.stall.business.cashStep) + this.tip,
  );

  /** What a way would take of the card or hand for `clears` of what is left; null if it cannot. */
  charge(way: WayToPay, clears: number): { charge: number; surcharge: number } | null {
    const { slip, business } = this.stall;
    if (slip.quote === null || clears <= 0) return null;
    const upTo = this.share === null ? null : this.left;
    const part = wouldTake(slip.quote, slip.current, business.cashStep, way, clears, upTo);
    return typeof part === 'string' ? null : part;
  }

  /**
   * @param amount What is handed over for the goods, or cleared on a card; null is all that is left of
   * the share or the whole.
   */
  async take(
    way: WayToPay,
    amount: number | null,
    said: Omit<AskedPart, 'way' | 'amount'> = {},
  ): Promise<TakenAtCounter | null> {
    if (this.isBusy) return null;
    this.isBusy = true;
    this.wrong = null;
    const { stall, tip, share } = this;
    const asked = { way, amount, tip, ...said };
    try {
      const taken = await takePartOf(
        stall,
        share === null ? asked : { ...asked, share: share + 1, upTo: this.left },
      );
      if (!taken.ok) this.wrong = refusalWords(taken.refusal, stall.money);
      else this.#follow(taken, way.method === 'cash');
      return taken;
    } catch (error) {
      this.wrong = notTaken(error);
      return null;
    } finally {
      this.isBusy = false;
    }
  }

  #follow(
    { part, number, sale, total, earned = null }: Extract<TakenAtCounter, { ok: true }>,
    isCash: boolean,
  ): void {
    const change = part?.change ?? 0;
    const handed = part === null ? 0 : part.charge + part.surcharge + part.tip;
    this.change = isCash && change > 0 ? { change, handed } : null;
    const isDistant = part?.card?.entry === 'keyed' || part?.card?.entry === 'file';
    const distant = isDistant ? part : null;
    if (number !== null && sale !== null)
      this.done = { number, sale, total, change, handed, distant, earned };
  }

  async giveBack(parts: readonly string[], reason: string): Promise<void> {
    if (this.isBusy) return;
    this.isBusy = true;
    try {
      const refusal = await giveBack(this.stall, parts, reason);
      this.wrong = refusal === null ? null : refusalWords(refusal, this.stall.money);
    } catch (error) {
      this.wrong = notTaken(error);
    } finally {
      this.isBusy = false;
    }
  }
}

const notTaken = (error: unknown): string =>
  `Nothing was written, and the slip is still here: ${faultWords(error)}`;
