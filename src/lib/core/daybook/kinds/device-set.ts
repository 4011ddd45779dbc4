import { z } from 'zod';
import { kind, name, recordId } from '../kind';

/**
 * A device as people know it. Its number heads the numbers of its sales: D3-17. Version 2 brought
 * what an owner gives it: the event it sells for and the drawer it uses, or null for its own choice.
 */
export const deviceSet = kind(
  2,
  z.strictObject({
    id: recordId,
    name,
    number: z.int().min(1).max(9999),
    event: recordId.nullable(),
    drawer: recordId.nullable(),
  }),
  { 1: (body) => ({ ...body, event: null, drawer: null }) },
);
