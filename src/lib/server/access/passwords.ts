/**
 * Passwords of owners: argon2id, and what makes one good enough. Length counts, not which kinds of
 * character there are; what many people use is refused (OWASP ASVS 5.0, V6.2).
 */
import { hash, verify } from '@node-rs/argon2';
import { dictionary } from '@zxcvbn-ts/language-common';
import { sha256 } from '../sha-256';

export const SHORTEST_PASSWORD = 10;
export const LONGEST_PASSWORD = 200;

export type PasswordRefusal =
  | { readonly code: 'password/too-short' }
  | { readonly code: 'password/too-long' }
  | { readonly code: 'password/common' };

const common = new Set(dictionary['passwords-common'].map((each) => each.toLowerCase()));

/** @param known Words that somebody who knows of the account would try: the address, the business. */
export function passwordFault(password: string, known: readonly string[]): PasswordRefusal | null {
  const length = Array.from(password).length;
  if (length < SHORTEST_PASSWORD) return { code: 'password/too-short' };
  if (length > LONGEST_PASSWORD) return { code: 'password/too-long' };
  return isCommon(password.toLowerCase(), known) ? { code: 'password/common' } : null;
}

/** In the list; made of one that is, twice; few characters again and again; or what is known. */
function isCommon(password: string, known: readonly string[]): boolean {
  const bare = password.replace(/[^\p{L}]+$/u, '');
  const half = password.slice(0, password.length / 2);
  const isDouble = half + half === password;
  return (
    [password, bare].some((each) => common.has(each)) ||
    (isDouble && common.has(half)) ||
    new Set(password).size < 4 ||
    known.some((word) => word.length > 3 && word.toLowerCase() === password)
  );
}

/** Second recommendation of RFC 9106 cut to what OWASP asks of a small server: 19 MiB, 2 passes. */
const COST = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;

export const hashPassword = (password: string): Promise<string> => hash(normal(password), COST);

export async function isPassword(kept: string, given: string): Promise<boolean> {
  return await verify(kept, normal(given));
}

/** Takes the time of looking at a real one, so that an unknown address does not answer sooner. */
let dummy: Promise<string> | undefined;
export async function lookAtNothing(given: string): Promise<void> {
  dummy ??= hashPassword(sha256(String(process.pid)));
  await verify(await dummy, normal(given));
}

/** The same password typed on another keyboard is the same. */
const normal = (password: string): string => password.normalize('NFKC');
