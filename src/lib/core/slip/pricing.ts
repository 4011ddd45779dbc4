/** What a slip is priced by. */
import type { Row, TaxSwap } from '../books/tables';
import type { SlipTax } from '../pricing/slip';

/** Of the business. */
export type Pricing = Pick<
  Row<'businesses'>,
  'currency' | 'pricesIncludeTax' | 'taxRounding' | 'cashStep' | 'typedSide' | 'uplift' | 'service'
>;

/** All of it, as it was: a slip is priced by that, whatever becomes of the set-up meanwhile. */
export interface FixedPricing {
  readonly pricing: Pricing;
  readonly taxes: readonly SlipTax[];
  readonly swaps: readonly TaxSwap[];
}
