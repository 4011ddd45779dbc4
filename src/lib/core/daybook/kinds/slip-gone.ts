import { z } from 'zod';
import { kind, recordId } from '../kind';

/** A kept slip is no more: it was rung up, or somebody threw it away. */
export const slipGone = kind(
  2,
  z.strictObject({
    slip: recordId,
    why: z.enum(['rung', 'emptied']),
    /** Its lines on the list as whoever ended it knew them: what is otherwise, others put on it out of touch. */
    known: z
      .array(z.strictObject({ id: recordId, stamp: z.string().max(60) }))
      .max(500)
      .nullable(),
  }),
  { 1: (body) => ({ ...body, known: null }) },
);
