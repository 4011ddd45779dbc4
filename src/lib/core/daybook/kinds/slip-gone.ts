import { z } from 'zod';
import { kind, recordId } from '../kind';

/** A kept slip is no more: it was rung up, or somebody threw it away. */
export const slipGone = kind(
  1,
  z.strictObject({ slip: recordId, why: z.enum(['rung', 'emptied']) }),
);
