/** The tax that a voucher is sold with, where the vendor sells vouchers for goods of one tax. */
import type { TaxSwap } from '../books/tables';
import { taxWithin, type KeptTax } from '../held/one-purpose';
import type { WayToPay } from '../payment/ways';
import type { SlipTax } from '../pricing/slip';
import { taxesAt } from './price-slip';

/**
 * Of what it is sold for, minor units; null where vouchers are for any goods, or where their tax is none here.
 * @param taxes Those in force.
 * @param swaps What stands in the place of others at the event.
 */
export function voucherTax(
  value: number,
  ways: readonly Pick<WayToPay, 'method' | 'purpose' | 'isActive'>[],
  taxes: readonly SlipTax[],
  swaps: readonly TaxSwap[],
): KeptTax | null {
  const { purpose = '' } =
    ways.find(({ method, isActive }) => method === 'voucher' && isActive) ?? {};
  const [id] = purpose === '' ? [] : taxesAt([purpose], swaps);
  const tax = taxes.find((each) => each.id === id);
  return tax === undefined ? null : taxWithin(value, tax);
}
