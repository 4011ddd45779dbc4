/**
 * What is kept of a device beside its database, in case a browser that runs out of room throws that away: who it
 * is, where its chain stands, and what has not been sent. Lines of JSON, each written after the ones before it.
 */
import { jsonOrNull } from '../../core/formats/json-or-null';
import { z } from 'zod';
import { storedEntrySchema } from '../../core/daybook/entry';
import type { Head, Identity, OwnBlock } from '../database';

export interface Mirror {
  readonly identity: Identity;
  /** How often something personal had been dropped from the database when the file was begun. */
  readonly erasures: number;
  readonly head: Head | null;
  /** The last own `seq` that the server was known to have. */
  readonly sent: number;
  readonly blocks: readonly OwnBlock[];
}

const identitySchema = z.object({
  business: z.string(),
  device: z.string(),
  number: z.int(),
  token: z.string(),
});
const headSchema = z.object({
  seq: z.int(),
  hash: z.string(),
  clock: z.object({ millis: z.int(), counter: z.int() }),
  sales: z.int(),
  reads: z.int(),
  returns: z.int().default(0),
  lastSale: z.string().nullable(),
});
const lineSchema = z.union([
  z.strictObject({ identity: identitySchema, erasures: z.int().default(0) }),
  z.strictObject({ block: z.object({ upTo: z.int(), entries: z.array(storedEntrySchema) }) }),
  z.strictObject({ head: headSchema, sent: z.int() }),
]);
export type MirrorLine = z.infer<typeof lineSchema>;

/**
 * What a mirror says; null if it does not say whose it is. A line that was only half written when the power
 * went is left out, and so is what comes after it: the head before it is the one that holds.
 */
export function mirrorFrom(text: string): Mirror | null {
  let identity: Identity | null = null;
  let erasures = 0;
  let [head, sent]: [Head | null, number] = [null, 0];
  const blocks = new Map<number, OwnBlock>();
  for (const line of text.split('\n')) {
    if (line === '') continue;
    const read = lineSchema.safeParse(jsonOrNull(line));
    if (!read.success) break;
    if ('identity' in read.data) ({ identity, erasures } = read.data);
    else if ('block' in read.data) blocks.set(read.data.block.upTo, read.data.block);
    else ({ head, sent } = read.data);
  }
  if (identity === null) return null;
  const upTo = head?.seq ?? 0;
  const unsent = [...blocks.values()].filter((block) => block.upTo > sent && block.upTo <= upTo);
  return { identity, erasures, head, sent, blocks: unsent.sort((a, b) => a.upTo - b.upTo) };
}
