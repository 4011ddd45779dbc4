/** What each part of a payment clears and charges (docs/rules.md, "Payment"). */
import { fraction, roundToMinor, times } from '../money/fraction';
import { minor, rateOf, sum } from '../money/units';
import { roundToStep } from '../pricing/cash-step';
import type { Side } from '../pricing/slip';

/** A way to pay as far as the sums are concerned. */
export interface WayRules {
  readonly id: string;
  readonly side: Side;
  /** Notes and coins: the only kind that the cash step rounds. The way called "cash" always is. */
  readonly cash?: boolean | undefined;
  readonly change?: boolean | undefined;
  /** Percent, decimal text. */
  readonly surchargeRate?: string | undefined;
  /** Minor units. */
  readonly surchargeFixed?: number | undefined;
}

/** What a part gives on the cash side, or clears on the card side; neither means all that is left. */
export interface PartAsked {
  readonly way: string;
  readonly gives?: number | undefined;
  readonly clears?: number | undefined;
}

export interface Totals {
  /** The slip's totals on both sides, in minor units. */
  readonly cashTotal: number;
  readonly cardTotal: number;
  readonly cashStep?: number | undefined;
}

export interface Payment extends Totals {
  readonly ways: readonly WayRules[];
  readonly parts: readonly PartAsked[];
}

export interface PartTaken {
  /** Minor units of what is owed, counted on the cash side. */
  readonly clears: number;
  /** Minor units handed over or charged, without surcharge. */
  readonly charge: number;
  readonly surcharge: number;
}

/** Why a part cannot be taken as asked; `at` is its position. */
export interface PaymentRefusal {
  readonly error:
    | 'more than is left'
    | 'unknown way to pay'
    | 'not an amount above zero'
    | 'nothing is left';
  readonly at: number;
}

export interface PaymentTaken {
  readonly parts: readonly PartTaken[];
  readonly left: number;
  readonly change: number;
  /** Kept difference from cash rounding, in minor units; negative when less was taken. */
  readonly rounding: number;
}

/** How far a payment has come. */
export interface Running {
  left: number;
  /** Y: all that card parts have cleared so far. */
  cardCleared: number;
  change: number;
  rounding: number;
}

/**
 * Takes the parts one after another.
 *
 * Units: minor units. Rounding: card charges are differences of the running card share, so that
 * all on card is exactly the card total; cash is rounded to the cash step once, when it clears.
 * @returns The parts, what is left, the change and the rounding; or why a part was refused.
 */
export function pay(payment: Payment): PaymentTaken | PaymentRefusal {
  const running = goOn(payment.cashTotal, []);
  const parts: PartTaken[] = [];
  for (const [at, asked] of payment.parts.entries()) {
    const way = payment.ways.find((known) => known.id === asked.way);
    if (way === undefined) return { error: 'unknown way to pay', at };
    const amount =
      way.side === 'card' ? (asked.clears ?? asked.gives) : (asked.gives ?? asked.clears);
    const taken = takeNext(payment, way, amount, running);
    if (typeof taken === 'string') return { error: taken, at };
    parts.push(taken);
  }
  return {
    parts,
    left: running.left,
    change: running.change,
    rounding: running.rounding,
  };
}

/**
 * Where a payment stands after these parts, which are facts: what each cleared, and on which side.
 * Units: minor units.
 */
export const goOn = (
  cashTotal: number,
  parts: readonly { readonly side: Side; readonly clears: number }[],
): Running => ({
  left: minor(cashTotal) - sum(parts.map(({ clears }) => clears)),
  cardCleared: sum(parts.map(({ side, clears }) => (side === 'card' ? clears : 0))),
  change: 0,
  rounding: 0,
});

/**
 * Takes one more part; `running` moves on.
 * @param amount What it gives on the cash side or clears on the card side; undefined is all that is left.
 */
export function takeNext(
  totals: Totals,
  way: WayRules,
  amount: number | undefined,
  running: Running,
): PartTaken | PaymentRefusal['error'] {
  if (amount !== undefined && !(Number.isSafeInteger(amount) && amount > 0))
    return 'not an amount above zero';
  if (running.left === 0 && totals.cashTotal !== 0) return 'nothing is left';
  const taken =
    way.side === 'card'
      ? takeOnCard(totals, way, amount ?? running.left, running)
      : takeOnCashSide(totals, way, amount, running);
  return taken ?? 'more than is left';
}

function takeOnCard(
  { cashTotal, cardTotal }: Totals,
  way: WayRules,
  clears: number,
  running: Running,
): PartTaken | null {
  if (clears > running.left) return null;
  const before = cardShare(running.cardCleared, cardTotal, cashTotal);
  running.cardCleared += clears;
  running.left -= clears;
  const charge = minor(cardShare(running.cardCleared, cardTotal, cashTotal) - before);
  return { clears, charge, surcharge: surchargeOf(charge, way) };
}

function takeOnCashSide(
  { cashStep = 1 }: Totals,
  way: WayRules,
  asked: number | undefined,
  running: Running,
): PartTaken | null {
  const due = isCash(way) ? roundToStep(running.left, cashStep) : running.left;
  const gives = asked ?? due;
  if (gives < due) {
    // Below a rounded-up due but above what is owed: it clears what is owed and no more.
    const clears = Math.min(gives, running.left);
    running.rounding += gives - clears;
    running.left -= clears;
    return { clears, charge: gives, surcharge: surchargeOf(gives, way) };
  }
  if (gives > due && way.change !== true) return null;
  const clears = running.left;
  running.change += gives - due;
  running.rounding += due - clears;
  running.left = 0;
  return { clears, charge: gives, surcharge: surchargeOf(due, way) };
}

/** Surcharge of a way to pay: `R(charge × rate) + fixed`. Minor units. */
export function surchargeOf(charge: number, way: WayRules): number {
  if (charge === 0) return 0;
  const rate = fraction(rateOf(way.surchargeRate ?? '0'), 1_000_000);
  return sum([roundToMinor(times(fraction(charge), rate)), way.surchargeFixed ?? 0]);
}

const isCash = (way: WayRules): boolean => way.cash ?? way.id === 'cash';

/** `R(Y × K / C)`; with nothing owed there is nothing to charge. */
function cardShare(cleared: number, card: number, cash: number): number {
  if (cash === 0) return 0;
  return roundToMinor(fraction(BigInt(cleared) * BigInt(card), cash));
}
