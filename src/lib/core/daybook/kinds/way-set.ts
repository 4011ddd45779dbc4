import { z } from 'zod';
import { METHODS } from '../../payment/methods';
import { amountFromZero, kind, name, percent, recordId, wayId } from '../kind';

/**
 * A way to pay, as the vendor set it up. Version 2 brought how much is taken with no network of what others may spend
 * too, version 3 how long a voucher usually lasts, version 4 which goods vouchers are for.
 */
export const waySet = kind(
  4,
  z
    .strictObject({
      id: wayId,
      name,
      /** Place in the vendor's order. */
      sort: z.int().min(0).max(9999),
      /** What the till does for it. */
      method: z.enum(METHODS),
      /** Which of the two prices it is charged. */
      side: z.enum(['cash', 'card']),
      needsCustomer: z.boolean(),
      /** What its reference is called; empty where none is asked for. */
      reference: z.string().max(40),
      /** The bank account that receives it. */
      account: z.string().max(80),
      surchargeRate: percent,
      /** Minor units. */
      surchargeFixed: amountFromZero,
      opensDrawer: z.boolean(),
      givesChange: z.boolean(),
      /** The ledger account that it posts to. */
      ledger: z.string().max(40),
      isActive: z.boolean(),
      /** With no network, of a voucher or credit at most; null for any amount. Minor units. */
      offlineMost: amountFromZero.nullable(),
      /** How many days a voucher usually lasts; 0 for any day. */
      lasts: z.int().min(0).max(36_500),
      /** The tax of the goods that a voucher is for, with which it is sold; empty where it is for any, and taxed when spent. */
      purpose: z.union([z.literal(''), recordId]),
    })
    .refine(({ side, givesChange }) => side === 'cash' || !givesChange, {
      path: ['givesChange'],
      message: 'only what is charged the cash price can give change',
    })
    .refine(({ method, purpose }) => method === 'voucher' || purpose === '', {
      path: ['purpose'],
      message: 'only vouchers are for goods of one tax',
    }),
  {
    1: (body) => ({ ...body, offlineMost: null }),
    2: (body) => ({ ...body, lasts: 0 }),
    3: (body) => ({ ...body, purpose: '' }),
  },
);
