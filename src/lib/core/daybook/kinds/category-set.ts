import { z } from 'zod';
import { kind, name, recordId } from '../kind';

/** What goods are sorted by in lists and reports; items name it by id, so it can be renamed. */
export const categorySet = kind(
  1,
  z.strictObject({ id: recordId, name, sort: z.int().min(0).max(9999), isActive: z.boolean() }),
);
