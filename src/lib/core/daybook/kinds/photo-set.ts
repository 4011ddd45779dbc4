import { z } from 'zod';
import { kind, recordId } from '../kind';

/** A picture, scaled down by the device that took it: a data address of a JPEG or WebP, at most about 60 kB. */
export const picture = z
  .string()
  .max(90_000)
  .regex(/^data:image\/(?:jpeg|webp);base64,[A-Za-z0-9+/=]+$/, 'a JPEG or WebP as data address');

/** A picture of an item, scaled down by the device that took it; null takes it away. */
export const photoSet = kind(
  1,
  z.strictObject({
    item: recordId,
    picture: picture.nullable(),
  }),
);
