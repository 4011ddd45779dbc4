/** What a device and the server say to each other; both sides check what they receive with these. */
import { z } from 'zod';
import { entrySchema, uuid } from './entry';

/** Entries in one push, and in one answer to a pull. */
export const MOST_PUSHED = 200;
export const MOST_PULLED = 500;
/** Bytes of one request body. */
export const LARGEST_BODY = 4 * 1024 * 1024;
/** A push is cut short at about this many bytes, well below the largest body. */
export const PUSH_BYTES = 1024 * 1024;

export const pushSchema = z.strictObject({ entries: z.array(entrySchema).min(1).max(MOST_PUSHED) });

/** Why the server took no more of a push, from `seq` on. */
export const pushRefusalSchema = z.object({
  seq: z.int(),
  code: z.enum([
    'chain/gap',
    'chain/broken',
    'chain/hash-wrong',
    'chain/stamp-back',
    'chain/private-wrong',
    'chain/forked',
    'entry/other-business',
    'entry/other-device',
    'entry/id-taken',
  ]),
  message: z.string(),
});
export type PushRefusal = z.infer<typeof pushRefusalSchema>;

/** An entry that was kept but could not be applied. */
export const keptSchema = z.object({ id: uuid, code: z.string(), message: z.string() });
export type Kept = z.infer<typeof keptSchema>;

/** What somebody has to look at; see `KeptEntry` of the loose ends. */
export const keptAnswerSchema = z.object({
  kept: z.array(
    z.object({
      entry: entrySchema,
      state: z.enum(['kept', 'barred', 'doubted']),
      code: z.string(),
      message: z.string(),
    }),
  ),
});
export type KeptAnswer = z.infer<typeof keptAnswerSchema>;

export const pushAnswerSchema = z.object({
  /** The last `seq` of this device that the server has. */
  have: z.int(),
  refused: pushRefusalSchema.nullable(),
  kept: z.array(keptSchema),
});
export type PushAnswer = z.infer<typeof pushAnswerSchema>;

export const pullAnswerSchema = z.object({
  entries: z.array(entrySchema),
  /** Position of the last entry in this answer, or what was asked for if there is none. */
  position: z.int(),
  /** The last position there is. Below the one asked for: the server was set back. */
  latest: z.int(),
  /** The last `seq` of the asking device that the server has. */
  have: z.int(),
});
export type PullAnswer = z.infer<typeof pullAnswerSchema>;

/** Where a new device starts: the rows as they are, and what they were made of. */
export const startAnswerSchema = z.object({
  position: z.int(),
  /** Last `seq` that the rows hold, by device. */
  received: z.record(uuid, z.int()),
  rows: z.record(z.string(), z.array(z.record(z.string(), z.unknown()))),
});
export type StartAnswer = z.infer<typeof startAnswerSchema>;

export const enrolSchema = z.strictObject({
  code: z.string().trim().min(4).max(40),
  /** Made by the device, so that a lost answer can be asked for again. */
  device: uuid,
  token: z.string().regex(/^[0-9a-f]{64}$/, '32 random bytes in hex'),
});

export const enrolAnswerSchema = z.object({ business: uuid, number: z.int().min(1) });
export type EnrolAnswer = z.infer<typeof enrolAnswerSchema>;

/** Every refusal of a request has this shape. */
export const refusalSchema = z.object({ code: z.string(), message: z.string() });
export type Refusal = z.infer<typeof refusalSchema>;
