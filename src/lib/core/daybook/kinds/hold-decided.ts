import { z } from 'zod';
import { amountFromZero, kind, recordId } from '../kind';

/**
 * Somebody decided what becomes of money that a card holds: it is taken, or less of it, or it is let go of.
 * The acquirer is told behind it, by the books alone.
 */
export const holdDecided = kind(
  1,
  z
    .strictObject({
      payment: recordId,
      does: z.enum(['capture', 'release']),
      /** Minor units that are taken; 0 when it is let go of. */
      amount: amountFromZero,
    })
    .refine(({ does, amount }) => (does === 'release') === (amount === 0), {
      path: ['amount'],
      message: 'what is taken is above zero, and of what is let go of nothing is taken',
    }),
);
