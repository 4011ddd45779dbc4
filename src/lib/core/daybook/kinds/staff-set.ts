import { z } from 'zod';
import { RIGHTS, rightsToBeginWith, ROLES } from '../../people/rights';
import { kind, name, percent, recordId } from '../kind';

/** Somebody who sells. Version 2 brought rights, the discount everybody may give, and the PIN. */
export const staffSet = kind(
  2,
  z.strictObject({
    id: recordId,
    name,
    role: z.enum(ROLES),
    isActive: z.boolean(),
    /** Beyond what everybody may; an owner has all of them whatever stands here. */
    rights: z.array(z.enum(RIGHTS)).max(RIGHTS.length),
    /** Percent off a line without asking anybody. */
    discountUpTo: percent,
    pin: z
      .strictObject({
        hash: z.string().regex(/^[0-9a-f]{64}$/, '32 bytes in hex'),
        iterations: z.int().min(1).max(10_000_000),
      })
      .nullable(),
  }),
  {
    1: (body) => ({
      ...body,
      rights: rightsToBeginWith(body['role']),
      discountUpTo: '0',
      pin: null,
    }),
  },
);
