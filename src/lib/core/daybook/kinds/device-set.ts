import { z } from 'zod';
import { kind, name, recordId } from '../kind';

/** A device as people know it. Its number heads the numbers of its sales: D3-17. */
export const deviceSet = kind(
  1,
  z.strictObject({ id: recordId, name, number: z.int().min(1).max(9999) }),
);
