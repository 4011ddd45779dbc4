import { z } from 'zod';
import { kind, recordId } from '../kind';

/** A picture of an item, scaled down by the device that took it; null takes it away. */
export const photoSet = kind(
  1,
  z.strictObject({
    item: recordId,
    /** A data address of a JPEG or WebP, at most about 60 kB. */
    picture: z
      .string()
      .max(90_000)
      .regex(/^data:image\/(?:jpeg|webp);base64,[A-Za-z0-9+/=]+$/, 'a JPEG or WebP as data address')
      .nullable(),
  }),
);
