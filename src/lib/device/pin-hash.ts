/** What is kept of a PIN, by the browser's own key stretching. */
import type { PinHash } from '../core/people/pin';

/** Slow enough to be felt by a machine that guesses, quick enough for a seller on a phone. */
const ITERATIONS = 300_000;

/** The same PIN in the same business always gives the same hash, so that no two can be alike. */
export async function hashPin(
  pin: string,
  business: string,
  iterations: number = ITERATIONS,
): Promise<PinHash> {
  const text = new TextEncoder();
  const key = await crypto.subtle.importKey('raw', text.encode(pin), 'PBKDF2', false, [
    'deriveBits',
  ]);
  const salt = text.encode(`stall-till pin ${business}`);
  const how = { name: 'PBKDF2', hash: 'SHA-256', salt, iterations };
  const bits = new Uint8Array(await crypto.subtle.deriveBits(how, key, 256));
  const hash = Array.from(bits, (byte) => byte.toString(16).padStart(2, '0')).join('');
  return { hash, iterations };
}
