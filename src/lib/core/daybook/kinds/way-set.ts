import { z } from 'zod';
import { METHODS } from '../../payment/methods';
import { amountFromZero, kind, name, percent, wayId } from '../kind';

/** A way to pay, as the vendor set it up. */
export const waySet = kind(
  1,
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
    })
    .refine(({ side, givesChange }) => side === 'cash' || !givesChange, {
      path: ['givesChange'],
      message: 'only what is charged the cash price can give change',
    }),
);
