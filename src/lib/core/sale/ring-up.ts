/** Ringing up in one go: a whole slip for cash, or one that comes to nothing. */
import type { Draft } from '../daybook/chain';
import { CASH_WAY, type WayToPay } from '../payment/ways';
import { roundToStep } from '../pricing/cash-step';
import { priceSlip } from '../slip/price-slip';
import type { OpenSlip } from '../slip/open-slip';
import { saleDrafts, type SaleSurroundings } from './sale-drafts';
import { leftOf, takePart, type PartRefusal } from './take-part';

export interface RingUp extends SaleSurroundings {
  readonly slip: OpenSlip;
  readonly drawer: string;
  /** Minor units handed over. */
  readonly handed: number;
  readonly tip?: number;
  /** Cash as the vendor set it up. */
  readonly way?: WayToPay;
}

/** Why nothing was rung up. */
export type RingUpRefusal =
  | PartRefusal
  | { readonly code: 'sale/paid-short'; readonly left: number }
  | { readonly code: 'sale/not-an-amount'; readonly handed: number };

export type RungUp =
  | {
      readonly ok: true;
      readonly drafts: readonly Draft[];
      readonly total: number;
      readonly change: number;
    }
  | { readonly ok: false; readonly refusal: RingUpRefusal };

/**
 * Takes cash for all that is left of the slip and rings it up: a payment and a sale that belong
 * together and are appended together. A slip that comes to nothing needs no payment.
 *
 * Units: minor units. The sale keeps every figure as it is worked out here.
 */
export function ringUp(command: RingUp): RungUp {
  const { slip, pricing, taxes, event, handed } = command;
  if (slip.lines.length === 0) return { ok: false, refusal: { code: 'sale/nothing-on-it' } };
  if (!Number.isSafeInteger(handed) || handed < 0) {
    return { ok: false, refusal: { code: 'sale/not-an-amount', handed } };
  }
  const quote = priceSlip(slip, pricing, taxes, event.swaps);
  const left = leftOf(quote, slip);
  if (left === 0) {
    // What comes back is written down with it, and the rest of that given back (ring-up-exchange.ts).
    if (slip.back !== undefined) return { ok: false, refusal: { code: 'pay/nothing-left' } };
    const drafts = saleDrafts(slip, quote, command);
    return { ok: true, drafts, total: quote.cash.total, change: handed };
  }
  // So little is left that cash rounds it to nothing: it is cleared by nothing.
  const isRoundedAway = roundToStep(left, pricing.cashStep) === 0;
  if (handed === 0 && !isRoundedAway)
    return { ok: false, refusal: { code: 'sale/paid-short', left } };
  const { tip = 0, way = CASH_WAY } = command;
  const amount = handed === 0 ? null : handed;
  const taken = takePart({ ...command, way, amount, tip });
  if (!taken.ok) return taken;
  if (taken.left !== 0)
    return { ok: false, refusal: { code: 'sale/paid-short', left: taken.left } };
  return { ok: true, drafts: taken.drafts, total: taken.total, change: taken.part.change };
}
