import { z } from 'zod';
import { kind, recordId } from '../kind';

/** What is kept of a PIN: enough to check it with no network, not the PIN itself. */
export const pinHash = z.strictObject({
  hash: z.string().regex(/^[0-9a-f]{64}$/, '32 bytes in hex'),
  iterations: z.int().min(1).max(10_000_000),
  /** Random, of this person; empty for one from before there were salts, which the business's id salts. */
  salt: z.string().max(64),
});

/** A person's PIN, apart from what they may, so that they can change it themselves; null is none. */
export const pinSet = kind(1, z.strictObject({ person: recordId, pin: pinHash.nullable() }));
