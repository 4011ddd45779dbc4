/** The envelope that every entry of the daybook has, whatever happened. */
import { z } from 'zod';
import { STAMP_PATTERN } from './clock';

export const uuid = z.uuid();
const hash = z.string().regex(/^[0-9a-f]{64}$/, 'a SHA-256 in lower-case hex');
/** Kinds are a noun and a past participle or "set": `sale.rung`. */
const kindName = z
  .string()
  .max(40)
  .regex(/^[a-z][A-Za-z]*\.[a-z][A-Za-z]*$/, 'noun.verb');

/** What is personal stands apart with a salt, so that it can be erased and the chain still holds. */
const privatePart = z.strictObject({
  salt: z.string().min(16).max(64),
  data: z.record(z.string(), z.unknown()),
});

export const entrySchema = z.strictObject({
  id: uuid,
  business: uuid,
  device: uuid,
  /** 1, 2, 3 … per device, without a gap. */
  seq: z.int().min(1),
  /** The device's own clock, ISO 8601 in UTC with milliseconds. */
  at: z.iso.datetime({ precision: 3 }),
  stamp: z.string().regex(STAMP_PATTERN, 'a stamp of the hybrid clock'),
  by: uuid.nullable(),
  /** A colleague who lent a right for this one entry, with a PIN of their own. */
  lentBy: uuid.optional(),
  event: uuid.nullable(),
  kind: kindName,
  v: z.int().min(1).max(999),
  body: z.record(z.string(), z.unknown()),
  /** SHA-256 of the canonical private part, or null if there is none. */
  digest: hash.nullable(),
  prev: hash,
  hash,
  private: privatePart.optional(),
});

export type Entry = Readonly<z.infer<typeof entrySchema>>;

/** `prev` of a device's first entry. */
export const GENESIS = '0'.repeat(64);
