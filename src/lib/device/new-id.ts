import { v4, v7 } from 'uuid';
import { newVoucherNumber } from '../core/held/voucher-number';

/** A new id: UUID version 7, so that ids made later sort later. */
export const newId = (): string => v7();

/** The number of a voucher that is sold here: fifty random bits of it. */
export const newVoucher = (business: string): string =>
  newVoucherNumber(business, crypto.getRandomValues(new Uint8Array(10)));

/** Salt for a private part: 122 random bits. */
export const newSalt = (): string => v4();

/** A revision to begin with: one of 2⁴⁸, with room to count on from. */
export function newRevision(): number {
  const [high = 0, low = 0] = crypto.getRandomValues(new Uint32Array(2));
  return 1 + (high % 65_536) * 4_294_967_296 + low;
}
