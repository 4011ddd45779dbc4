import { z } from 'zod';
import { kind, recordId } from '../kind';

/** A device has taken a kept slip up, to go on with it. */
export const slipTaken = kind(1, z.strictObject({ slip: recordId }));
