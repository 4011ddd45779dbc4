import { z } from 'zod';
import { kind, note, recordId } from '../kind';

export const STAGES = ['planned', 'packed', 'trading', 'counted', 'settled'] as const;
export type Stage = (typeof STAGES)[number];

/** An event has reached a stage. It only ever moves forward by this. */
export const eventStage = kind(1, z.strictObject({ event: recordId, stage: z.enum(STAGES) }));

/** An event goes back to an earlier stage, and why: whatever was reached before this counts no more. */
export const eventBack = kind(
  1,
  z.strictObject({
    event: recordId,
    to: z.enum(STAGES).exclude(['settled']),
    why: note.trim().min(1),
  }),
);
