import { z } from 'zod';
import { METHODS } from '../../payment/methods';
import { amountFromZero, kind, name, percent, wayId } from '../kind';

/** A way to pay, as the vendor set it up. Version 2 brought how much is taken with no network of what others may spend too. */
export const waySet = kind(
  2,
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
    })
    .refine(({ side, givesChange }) => side === 'cash' || !givesChange, {
      path: ['givesChange'],
      message: 'only what is charged the cash price can give change',
    }),
  { 1: (body) => ({ ...body, offlineMost: null }) },
);
