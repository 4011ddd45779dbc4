/** Digests of anything that JSON can say. */
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import canonicalize from 'canonicalize';

/** What a text's SHA-256 is, in hexadecimal digits; the same whoever works it out. */
export type Sha256 = (text: string) => string;

const portable: Sha256 = (text) => bytesToHex(sha256(utf8ToBytes(text)));

/** SHA-256 over the canonical JSON (RFC 8785) of any value. */
export const digestOf = (value: unknown, sha256Of: Sha256 = portable): string =>
  sha256Of(canonical(value));

/**
 * Canonical JSON (RFC 8785). What `canonicalize` makes of it, in a third of the time where the fields can be put in order
 * and written as any JSON is, which is nearly always: each entry is hashed by whoever writes it and by whoever gets it.
 * @throws Where JSON cannot say it: half a character, a number beyond all numbers, a nesting without end.
 */
export function canonical(value: unknown): string {
  const found = { isUnusual: false };
  const ordered = inOrder(value, found);
  if (found.isUnusual) return canonicalize(value) ?? 'null';
  const text = JSON.stringify(ordered);
  // Half a character is written so. Words that only look like it are none the worse for being looked at closely.
  return /\\ud[89a-f]/.test(text) ? canonicalize(value)! : text;
}

/** The value with the fields of all objects in order; says so of what would be written in another way. */
function inOrder(value: unknown, found: { isUnusual: boolean }): unknown {
  if (typeof value === 'number') {
    if (!Number.isFinite(value)) found.isUnusual = true;
    return value;
  }
  if (typeof value === 'string' || typeof value === 'boolean' || value === null) return value;
  if (Array.isArray(value)) return value.map((each) => inOrder(each, found));
  if (typeof value !== 'object' || 'toJSON' in value) {
    found.isUnusual = true;
    return value;
  }
  const ordered: Record<string, unknown> = {};
  for (const field of Object.keys(value).sort()) {
    const of = (value as Readonly<Record<string, unknown>>)[field];
    // A name that is a number comes before all others in any object, and one is not a field of its own.
    if (/^\d/.test(field) || field === '__proto__') found.isUnusual = true;
    if (of !== undefined) ordered[field] = inOrder(of, found);
  }
  return ordered;
}
