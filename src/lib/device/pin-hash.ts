/** What is kept of a PIN, by the browser's own key stretching. */
import type { PinHash } from '../core/people/pin';

/** Slow enough to be felt by a machine that guesses, quick enough for a seller on a cheap phone. */
const ITERATIONS = 300_000;

/** A PIN of one person, kept so that it can be checked with no network. @param salt Random. */
export async function hashPin(
  pin: string,
  business: string,
  salt: string,
  iterations: number = ITERATIONS,
): Promise<PinHash> {
  const text = new TextEncoder();
  const key = await crypto.subtle.importKey('raw', text.encode(pin), 'PBKDF2', false, [
    'deriveBits',
  ]);
  // Without a salt of its own: as it was before there were any.
  const salted = text.encode(`stall-till pin ${business}${salt === '' ? '' : ` ${salt}`}`);
  const how = { name: 'PBKDF2', hash: 'SHA-256', salt: salted, iterations };
  const bits = new Uint8Array(await crypto.subtle.deriveBits(how, key, 256));
  const hash = Array.from(bits, (byte) => byte.toString(16).padStart(2, '0')).join('');
  return { hash, iterations, salt };
}

/** Whether it is the PIN of which this is kept. */
export async function isPinOf(kept: PinHash, pin: string, business: string): Promise<boolean> {
  return (await hashPin(pin, business, kept.salt, kept.iterations)).hash === kept.hash;
}

/** Whether one of these people has this PIN already: each has a salt, so each is asked in turn. */
export async function isPinTaken(
  people: readonly { readonly pin: PinHash | null }[],
  pin: string,
  business: string,
): Promise<boolean> {
  for (const { pin: kept } of people) {
    if (kept !== null && (await isPinOf(kept, pin, business))) return true;
  }
  return false;
}
