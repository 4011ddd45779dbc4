import { z } from 'zod';
import { kind, recordId } from '../kind';

export const STAGES = ['planned', 'packed', 'trading', 'counted', 'settled'] as const;
export type Stage = (typeof STAGES)[number];

/** An event has reached a stage. */
export const eventStage = kind(1, z.strictObject({ event: recordId, stage: z.enum(STAGES) }));
