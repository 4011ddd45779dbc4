import { z } from 'zod';
import { kind, name, recordId } from '../kind';

/** Somebody who sells. */
export const staffSet = kind(
  1,
  z.strictObject({
    id: recordId,
    name,
    role: z.enum(['owner', 'lead', 'helper']),
    isActive: z.boolean(),
  }),
);
