import { z } from 'zod';
import { kind, note, recordId } from '../kind';

/**
 * How a loose end was settled: it stands as it is, what it asked for was done over by somebody who
 * may, or it was left out and what stood before was said again.
 */
export const SETTLEMENTS = ['accepted', 'done over', 'left out'] as const;
export type Settlement = (typeof SETTLEMENTS)[number];

/** What names it: `entry:` and the id of the entry that it is about, or the sort and what it is about. */
const looseEndName = z
  .string()
  .max(80)
  .regex(/^[a-z]+:[a-z0-9-]+$/);

/** Somebody settled a loose end, and says why. Nothing else about it changes. */
export const looseEndSettled = kind(
  1,
  z.strictObject({
    looseEnd: looseEndName,
    how: z.enum(SETTLEMENTS),
    reason: z.string().trim().min(1).max(500),
  }),
);

/** Somebody is asked to look after a loose end, or nobody any more. It stays loose. */
export const looseEndHanded = kind(
  1,
  z.strictObject({ looseEnd: looseEndName, to: recordId.nullable(), note: note.trim() }),
);
