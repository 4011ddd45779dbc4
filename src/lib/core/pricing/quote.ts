/** What a slip comes to (docs/rules.md, "A slip"): the one place where slips are worked out. */
import { fraction, roundToMinor } from '../money/fraction';
import { percentOf } from '../money/percent';
import { shareByWeights } from '../money/apportion';
import { minor, quantityOf, rateOf, sum } from '../money/units';
import { roundToStep } from './cash-step';
import type { Discount, Quote, QuotedLine, Side, SideQuote, Slip, SlipLine } from './slip';
import { taxesOf, taxTotals, type TaxedLine } from './taxes';
import { priceOn, type TwoPrices } from './two-prices';

const ONE_PRICE: TwoPrices = { typedSide: 'cash', uplift: '0' };

/**
 * Works a slip out on both sides: lines, discounts, service charge, taxes, total.
 *
 * Units: minor units; quantities are decimal text. Rounding: exactly where the rules write `R`.
 * @throws {NotAWholeUnitError} For an amount, rate or quantity that is not one.
 * @throws {UnknownTaxError} If a line names a tax that the slip does not have.
 * @example quoteSlip(slip).cash.total // => 3700
 */
export function quoteSlip(slip: Slip): Quote {
  const cash = quoteSide(slip, 'cash');
  const card = hasTwoPrices(slip) ? quoteSide(slip, 'card') : cash;
  return { cash, card, dueInCash: roundToStep(cash.total, slip.cashStep) };
}

function hasTwoPrices(slip: Slip): boolean {
  if (slip.uplift !== undefined && rateOf(slip.uplift) !== 0) return true;
  return slip.lines.some((line) => line.otherSidePrice !== undefined);
}

interface Working {
  readonly gross: number;
  readonly lineDiscount: number;
  readonly standingDiscount: number;
  /** Gross less the two discounts above. */
  readonly b: number;
  readonly discountable: boolean;
}

function quoteSide(slip: Slip, side: Side): SideQuote {
  const working = slip.lines.map((line) => beforeWhole(line, slip, side));
  const whole = wholeDiscounts(working, slip.discount);
  const nets = working.map((line, i) => minor(line.b - whole[i]!));
  const serviceCharge = serviceChargeOf(slip, nets);

  const taxed: TaxedLine[] = slip.lines.map((line, i) => ({ net: nets[i]!, taxes: line.taxes }));
  if (slip.serviceCharge !== undefined) {
    taxed.push({ net: serviceCharge, taxes: slip.serviceCharge.taxes });
  }
  const taxOfLines = taxesOf(taxed, slip);
  const onTop = (i: number): number =>
    slip.pricesIncludeTax ? 0 : sum(Object.values(taxOfLines[i]!));

  const lines = working.map(({ gross, lineDiscount, standingDiscount }, i): QuotedLine => ({
    gross,
    lineDiscount,
    standingDiscount,
    wholeDiscount: whole[i]!,
    net: nets[i]!,
    tax: taxOfLines[i]!,
    total: minor(nets[i]! + onTop(i)),
  }));
  const total = sum(taxed.map((line, i) => line.net + onTop(i)));
  return { lines, serviceCharge, taxes: taxTotals(taxed, taxOfLines, slip), total };
}

/** Steps 1 to 3: gross, the line's own discount, the standing discount. */
function beforeWhole(line: SlipLine, slip: Slip, side: Side): Working {
  const prices = twoPrices(slip);
  const extras = (line.extras ?? []).map((extra) => priceOn(side, extra.price, prices));
  const unit = priceOn(side, line.price, prices, line.otherSidePrice) + sum(extras);
  const gross = roundToMinor(fraction(BigInt(unit) * BigInt(quantityOf(line.quantity)), 1000));
  const lineDiscount = minor(lineDiscountOf(gross, line.discount));
  const discountable = line.noDiscount !== true;
  const a = gross - lineDiscount;
  const standingDiscount =
    discountable && slip.standingDiscount !== undefined
      ? percentOf(a, slip.standingDiscount)
      : minor(0);
  return { gross, lineDiscount, standingDiscount, b: a - standingDiscount, discountable };
}

function lineDiscountOf(gross: number, discount: Discount | undefined): number {
  if (discount === undefined) return 0;
  if ('percent' in discount) return percentOf(gross, discount.percent);
  return Math.sign(gross) * Math.min(Math.abs(gross), minor(discount.amount));
}

/** Step 4: the discount on the whole, shared out over the lines it applies to. */
function wholeDiscounts(lines: readonly Working[], discount: Discount | undefined): number[] {
  const weights = lines.map((line) => (line.discountable && line.b > 0 ? line.b : 0));
  const all = sum(weights);
  if (discount === undefined || all === 0) return lines.map(() => 0);
  const amount =
    'percent' in discount
      ? percentOf(all, discount.percent)
      : Math.min(minor(discount.amount), all);
  return shareByWeights(amount, weights);
}

/** Step 5. */
function serviceChargeOf(slip: Slip, nets: readonly number[]): number {
  const charge = slip.serviceCharge;
  if (charge === undefined) return 0;
  if ('amount' in charge) return minor(charge.amount);
  const base = sum(nets.filter((_, i) => slip.lines[i]!.noDiscount !== true));
  return percentOf(base, charge.percent);
}

function twoPrices(slip: Slip): TwoPrices {
  if (slip.typedSide === undefined && slip.uplift === undefined) return ONE_PRICE;
  return { typedSide: slip.typedSide ?? 'cash', uplift: slip.uplift ?? '0' };
}
