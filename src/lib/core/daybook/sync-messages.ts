/** What a device and the server say to each other; both sides check what they receive with these. */
import { z } from 'zod';
import { STAMP_PATTERN } from './clock';
import { entrySchema, storedEntrySchema, uuid } from './entry';

/** Entries in one push, and in one answer to a pull. */
export const MOST_PUSHED = 200;
export const MOST_PULLED = 500;
/** Bytes of one request body. */
export const LARGEST_BODY = 4 * 1024 * 1024;
/** A push is cut short at about this many bytes, well below the largest body. */
export const PUSH_BYTES = 1024 * 1024;
/** An answer to a pull is cut short at about this many. */
export const PULL_BYTES = 1024 * 1024;

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
    'entry/too-large',
  ]),
  message: z.string(),
});
export type PushRefusal = z.infer<typeof pushRefusalSchema>;

/** What is not in the books by this version, and is tried again by each that comes. */
export const TRIED_AGAIN = ['unread', 'unfit'] as const;
export type TriedAgain = (typeof TRIED_AGAIN)[number];

/** What becomes of an entry at which a later version, or somebody, has to look; `core/judging/becomes.ts` says which is which. */
export const TO_BE_SEEN = [...TRIED_AGAIN, 'barred', 'doubted'] as const;
export type ToBeSeen = (typeof TO_BE_SEEN)[number];

/** An entry of which not all is well: the server has it, and says what it is to it. */
export const keptSchema = z.object({
  id: uuid,
  state: z.enum(TO_BE_SEEN),
  code: z.string(),
  message: z.string(),
});
export type Kept = z.infer<typeof keptSchema>;

/** What somebody has to look at; see `KeptEntry` of the loose ends. */
export const keptAnswerSchema = z.object({
  /** How many there are beyond those that are listed. */
  more: z.int(),
  /** Cards that were charged and that no device has written down. */
  charged: z.array(z.object({ payment: uuid, device: uuid, amount: z.int(), at: z.string() })),
  kept: z.array(
    z.object({
      entry: storedEntrySchema,
      state: z.enum(TO_BE_SEEN),
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
  /** Entries of this push whose stamps were ahead of their arrival, and what they were held to. */
  held: z.array(z.object({ id: uuid, stamp: z.string().regex(STAMP_PATTERN) })),
  /** The server's clock, milliseconds since 1970. */
  now: z.int(),
});
export type PushAnswer = z.infer<typeof pushAnswerSchema>;

export const pullAnswerSchema = z.object({
  entries: z.array(storedEntrySchema),
  /** Position of the last entry in this answer, or what was asked for if there is none. */
  position: z.int(),
  /** The last position there is. Below the one asked for: the server was set back. */
  latest: z.int(),
  /** The last `seq` of the asking device that the server has. */
  have: z.int(),
  /** It has another entry under the number that the device calls its last one. */
  isCopy: z.boolean(),
  /** The position asked for is not what it was when the device heard of it: the server was set back. */
  isSetBack: z.boolean(),
  /** What stands at `position`, to hand back with the next pull; empty where nothing does. */
  mark: z.string().max(64),
  /** Entries up to `position` that are handed out to nobody, so that no number is missing. */
  passed: z.array(z.object({ device: uuid, seq: z.int() })),
  /** Devices that were shut out: what they carried is others' to see to. */
  shutOut: z.array(uuid),
  /** The server's clock, milliseconds since 1970. */
  now: z.int(),
});
export type PullAnswer = z.infer<typeof pullAnswerSchema>;

const rowsSchema = z.record(z.string(), z.array(z.record(z.string(), z.unknown())));

/** A page of where a new device starts: rows as they are. The first says what they were made of. */
export const startPageSchema = z.object({
  begins: z
    .object({
      position: z.int(),
      mark: z.string().max(64).default(''),
      /** Last `seq` that the rows hold, by device. */
      received: z.record(uuid, z.int()),
      /** The latest of all stamps that count. */
      clock: z.object({ millis: z.int(), counter: z.int() }),
    })
    .optional(),
  rows: rowsSchema,
  /** Where the next page begins: opaque, handed back as it is; null for the last one. */
  next: z
    .object({ table: z.string(), after: z.array(z.union([z.string(), z.number()])).max(4) })
    .nullable(),
});
export type StartPage = z.infer<typeof startPageSchema>;

/** All pages together. */
export interface StartAnswer extends NonNullable<StartPage['begins']> {
  readonly rows: StartPage['rows'];
}

/** Records as the server has them; null where it has none. */
export const recordsAskSchema = z.strictObject({
  wanted: z
    .array(z.strictObject({ table: z.string().max(40), id: z.string().max(40) }))
    .min(1)
    .max(50),
});
export const recordsAnswerSchema = z.object({
  records: z.array(
    z.object({
      table: z.string(),
      id: z.string(),
      row: z.record(z.string(), z.unknown()).nullable(),
    }),
  ),
});

/** Pictures of goods, after an item. */
export const photosAnswerSchema = z.object({
  photos: z.array(z.record(z.string(), z.unknown())),
  next: z.string().nullable(),
});
export type PhotosAnswer = z.infer<typeof photosAnswerSchema>;

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
