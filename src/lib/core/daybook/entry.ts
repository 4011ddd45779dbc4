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

/**
 * An entry as the server hands it out. A stamp that was ahead of its arrival is held: `held` stands in its
 * place, for everybody (docs/architecture.md). It is the server's word and not part of what is hashed.
 */
export const storedEntrySchema = entrySchema.extend({
  held: z.string().regex(STAMP_PATTERN, 'a stamp of the hybrid clock').optional(),
  /** It could not be read when it arrived, and was taken up later, after entries that followed it. */
  late: z.literal(true).optional(),
});

export type Entry = Readonly<z.infer<typeof storedEntrySchema>>;

/** `prev` of a device's first entry. */
export const GENESIS = '0'.repeat(64);
