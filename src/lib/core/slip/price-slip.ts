/** An open slip as the sums want it. */
import type { Row, Service, TaxSwap } from '../books/tables';
import { quantityText, rateOf, thousandths } from '../money/units';
import { quoteSlip } from '../pricing/quote';
import type { Quote, Slip, SlipTax } from '../pricing/slip';
import { isKnown } from '../event/todays-event';
import { isPaidIn, type OpenSlip } from './open-slip';
import type { FixedPricing, Pricing } from './pricing';

/** The taxes in force, in set-up order. */
export function taxesInForce(taxes: readonly Row<'taxes'>[]): SlipTax[] {
  const inForce = taxes
    .filter((tax) => isKnown(tax) && tax.isActive)
    .sort((a, b) => a.sort - b.sort || (a.id < b.id ? -1 : 1));
  return inForce.map(({ id, name, rate, level, on }, at) => {
    // Charged on a tax that two devices put away, or moved behind it, out of touch: that one is nothing then.
    const before = new Set(inForce.slice(0, at).map((tax) => tax.id));
    return { id, name, rate, level, on: on.filter((each) => before.has(each)) };
  });
}

/** The taxes that goods carry at an event: some stand in the place of others there, or of none. */
export function taxesAt(carried: readonly string[], swaps: readonly TaxSwap[]): readonly string[] {
  if (swaps.length === 0) return carried;
  const found = carried.flatMap((id) => {
    const swap = swaps.find(({ from }) => from === id);
    return swap === undefined ? [id] : swap.to === null ? [] : [swap.to];
  });
  return found.filter((id, at) => found.indexOf(id) === at);
}

/** The larger of the customer's standing discount and the group's; the customer's if they are equal. */
export function standingOf({ customer, group }: Pick<OpenSlip, 'customer' | 'group'>): {
  readonly name: string;
  readonly percent: string;
} | null {
  const own =
    customer === undefined || rateOf(customer.discount) === 0
      ? null
      : { name: customer.name, percent: customer.discount };
  if (group === undefined) return own;
  return own !== null && rateOf(own.percent) >= rateOf(group.percent) ? own : group;
}

/** The service charge on this slip: its own, or what the business usually charges. */
export const serviceOf = (slip: OpenSlip, pricing: Pricing): Service | null =>
  slip.service === undefined ? pricing.service : slip.service;

/** What a slip is priced by: what it was fixed to, or the set-up as it is. */
export const pricedBy = (
  { fixed }: Pick<OpenSlip, 'fixed'>,
  { pricing, taxes, swaps }: FixedPricing,
): FixedPricing => fixed ?? { pricing, taxes, swaps };

/** Works out what an open slip comes to now. @throws What `quoteSlip` throws. */
export function priceSlip(
  slip: OpenSlip,
  pricingNow: Pricing,
  taxesNow: readonly SlipTax[],
  swapsNow: readonly TaxSwap[] = [],
): Quote {
  const now = { pricing: pricingNow, taxes: taxesNow, swaps: swapsNow };
  const { pricing, taxes, swaps } = pricedBy(slip, now);
  const known = new Set(taxes.map(({ id }) => id));
  const carry = (ids: readonly string[]): string[] =>
    taxesAt(ids, swaps).filter((id) => known.has(id));
  const standing = standingOf(slip);
  const service = serviceOf(slip, pricing);
  const priced: Slip = {
    currency: pricing.currency,
    pricesIncludeTax: pricing.pricesIncludeTax,
    taxRounding: pricing.taxRounding,
    cashStep: pricing.cashStep,
    typedSide: pricing.typedSide,
    uplift: pricing.uplift,
    taxes,
    ...(standing === null ? {} : { standingDiscount: standing.percent }),
    ...(slip.discount === undefined ? {} : { discount: slip.discount }),
    ...(service === null || slip.lines.every(isPaidIn)
      ? {}
      : { serviceCharge: { ...service, taxes: carry(service.taxes) } }),
    lines: slip.lines.map((line) => ({
      name: line.name,
      price: line.price,
      quantity: quantityText(thousandths(line.quantity)),
      taxes: carry(line.taxes),
      ...(line.otherPrice === undefined ? {} : { otherSidePrice: line.otherPrice }),
      // The same on both sides, and never less.
      ...(isPaidIn(line) ? { otherSidePrice: line.price, noDiscount: true } : {}),
      // What was agreed of an order has every discount already.
      ...(line.ordered === undefined ? {} : { noDiscount: true }),
      ...(line.extras === undefined ? {} : { extras: line.extras }),
      ...(line.discount === undefined ? {} : { discount: line.discount }),
    })),
  };
  return quoteSlip(priced);
}
