import { z } from 'zod';
import { kind, recordId } from '../kind';

/**
 * Two records are of one person, who goes by the other one from now on; null takes that back. What was said on
 * either stays there.
 */
export const customerJoined = kind(
  1,
  z
    .strictObject({
      customer: recordId,
      into: recordId.nullable(),
    })
    .refine(({ customer, into }) => customer !== into, {
      path: ['into'],
      message: 'a customer is joined to another one, not to themselves',
    }),
);
