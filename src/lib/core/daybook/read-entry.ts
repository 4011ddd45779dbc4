/** From an entry as it was received to one whose body is known to be right. */
import type { z } from 'zod';
import type { Entry } from './entry';
import { isKind, kinds, type KnownEntry } from './kinds';

/** Why an entry is kept but cannot be applied. `where` is a path into the body. */
export type BodyFault =
  | { readonly code: 'kind/unknown'; readonly kind: string }
  | {
      readonly code: 'kind/newer';
      readonly kind: string;
      readonly v: number;
      readonly known: number;
    }
  | {
      readonly code: 'body/wrong';
      readonly kind: string;
      readonly where: string;
      readonly why: string;
    };

export type EntryRead =
  | { readonly ok: true; readonly entry: KnownEntry }
  | { readonly ok: false; readonly fault: BodyFault };

/**
 * Checks the body against its kind's schema, older versions upgraded first. What is read bears the stamp
 * that counts: the one that it was held to, if it was.
 */
export function readEntry(entry: Entry): EntryRead {
  const { kind, v } = entry;
  if (!isKind(kind)) return { ok: false, fault: { code: 'kind/unknown', kind } };
  const spec = kinds[kind];
  if (v > spec.v) return { ok: false, fault: { code: 'kind/newer', kind, v, known: spec.v } };
  const read = spec.body.safeParse(upgraded(entry.body, v, spec));
  if (!read.success)
    return { ok: false, fault: { code: 'body/wrong', kind, ...firstIssue(read.error) } };
  const wrong = wrongPrivate(entry, spec.private);
  if (wrong !== null) return { ok: false, fault: { code: 'body/wrong', kind, ...wrong } };
  const { held, late: _late, ...rest } = entry;
  const stamp = held ?? entry.stamp;
  return { ok: true, entry: { ...rest, stamp, kind, body: read.data } as KnownEntry };
}

/** What is wrong with the private part, if it is there. */
function wrongPrivate(
  { private: apart }: Entry,
  schema: z.ZodType | null,
): { where: string; why: string } | null {
  if (apart === undefined) return null;
  if (schema === null) return { where: 'private', why: 'this kind has nothing private' };
  const read = schema.safeParse(apart.data);
  if (read.success) return null;
  const { where, why } = firstIssue(read.error);
  return { where: `private.${where}`, why };
}

/** The first thing that is wrong, and where. */
export function firstIssue(error: z.ZodError): { where: string; why: string } {
  const [issue] = error.issues;
  const path = issue?.path.map(String).join('.') ?? '';
  return { where: path === '' ? '(the whole)' : path, why: issue?.message ?? 'not as expected' };
}

interface Upgradable {
  readonly v: number;
  readonly upgrades: Readonly<
    Record<number, (body: Record<string, unknown>) => Record<string, unknown>>
  >;
}

/** Runs `v → v + 1 → …` up to the current version; a missing step leaves the body to the schema. */
export function upgraded(
  body: Record<string, unknown>,
  from: number,
  spec: Upgradable,
): Record<string, unknown> {
  let now = body;
  for (let v = from; v < spec.v; v += 1) now = spec.upgrades[v]?.(now) ?? now;
  return now;
}
