/** What our own server works out, looked at as far as a page has to be sure of it. */
import { z } from 'zod';

type PartOf<V> = V extends readonly unknown[]
  ? 'list'
  : V extends string
    ? 'text'
    : V extends number
      ? 'number'
      : null extends V
        ? 'record or null'
        : 'record';
type Part = 'list' | 'text' | 'number' | 'record' | 'record or null';

const record = z.record(z.string(), z.unknown());
const schemas: Readonly<Record<Part, z.ZodType>> = {
  list: z.array(z.unknown()),
  text: z.string(),
  number: z.number(),
  record,
  'record or null': record.nullable(),
};

/**
 * That each part is there and what it is, and no deeper: what stands in it comes from the code that the page has as well.
 * It tells an answer of another version, which a page from before an update may get, from one that can be shown; what
 * that has beyond these is passed over.
 * @param parts Every part of the answer: the compiler asks for each.
 */
export const partsSchema = <T extends object>(parts: {
  readonly [K in keyof T]-?: PartOf<T[K]>;
}): z.ZodType<T> =>
  z.looseObject(
    Object.fromEntries(
      Object.entries<Part>(parts as Readonly<Record<string, Part>>).map(([name, part]) => [
        name,
        schemas[part],
      ]),
    ),
  ) as unknown as z.ZodType<T>;
