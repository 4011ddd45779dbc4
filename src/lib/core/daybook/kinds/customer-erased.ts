import { z } from 'zod';
import { kind, recordId } from '../kind';

/**
 * A customer's personal data is dropped for good, from the rows and from every entry that holds any.
 * What they bought stays, under an id that says nothing.
 */
export const customerErased = kind(1, z.strictObject({ customer: recordId }));
