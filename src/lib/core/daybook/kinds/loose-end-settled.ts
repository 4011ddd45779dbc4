import { z } from 'zod';
import { kind } from '../kind';

/**
 * How a loose end was settled: it stands as it is, what it asked for was done over by somebody who
 * may, or it was left out and what stood before was said again.
 */
export const SETTLEMENTS = ['accepted', 'done over', 'left out'] as const;
export type Settlement = (typeof SETTLEMENTS)[number];

/** Somebody settled a loose end, and says why. Nothing else about it changes. */
export const looseEndSettled = kind(
  1,
  z.strictObject({
    /** What names it: `entry:` and the id of the entry that it is about. */
    looseEnd: z
      .string()
      .max(80)
      .regex(/^[a-z]+:[a-z0-9-]+$/),
    how: z.enum(SETTLEMENTS),
    reason: z.string().trim().min(1).max(500),
  }),
);
