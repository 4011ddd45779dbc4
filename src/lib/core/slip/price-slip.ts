/** An open slip as the sums want it. */
import type { Row } from '../books/tables';
import { quantityText, thousandths } from '../money/units';
import { quoteSlip } from '../pricing/quote';
import type { Quote, Slip, SlipTax } from '../pricing/slip';
import { isKnown } from '../event/todays-event';
import type { OpenSlip } from './open-slip';

export type Pricing = Pick<
  Row<'businesses'>,
  'currency' | 'pricesIncludeTax' | 'taxRounding' | 'cashStep'
>;

/** The taxes in force, in set-up order. */
export function taxesInForce(taxes: readonly Row<'taxes'>[]): SlipTax[] {
  return taxes
    .filter((tax) => isKnown(tax) && tax.isActive)
    .sort((a, b) => a.sort - b.sort || (a.id < b.id ? -1 : 1))
    .map(({ id, name, rate, level, on }) => ({ id, name, rate, level, on }));
}

/** Works out what an open slip comes to now. @throws What `quoteSlip` throws. */
export function priceSlip(slip: OpenSlip, pricing: Pricing, taxes: readonly SlipTax[]): Quote {
  const known = new Set(taxes.map(({ id }) => id));
  const priced: Slip = {
    currency: pricing.currency,
    pricesIncludeTax: pricing.pricesIncludeTax,
    taxRounding: pricing.taxRounding === 'line' ? 'line' : 'sale',
    cashStep: pricing.cashStep,
    taxes,
    lines: slip.lines.map((line) => ({
      name: line.name,
      price: line.price,
      quantity: quantityText(thousandths(line.quantity)),
      taxes: line.taxes.filter((id) => known.has(id)),
    })),
  };
  return quoteSlip(priced);
}
