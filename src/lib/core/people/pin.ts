/** What makes a PIN good enough, and what is kept of it. */
import type { z } from 'zod';
import type { pinHash } from '../daybook/kinds/pin-set';
import { isTrusted } from './rights';

/** What a device keeps of a PIN: enough to check it with no network, not the PIN itself. */
export type PinHash = Readonly<z.infer<typeof pinHash>>;

export const SHORTEST_PIN = 4;
/** Of whoever may do more than everybody: their PIN is worth guessing. */
export const SHORTEST_WITH_RIGHTS = 6;
export const LONGEST_PIN = 8;

export type PinRefusal =
  | { readonly code: 'pin/not-digits' }
  | { readonly code: 'pin/too-easy' }
  | { readonly code: 'pin/too-short' }
  | { readonly code: 'pin/taken' };

interface Holder {
  readonly role: string;
  readonly rights: readonly string[];
}

const leastFor = (holder: Holder): number =>
  isTrusted(holder) ? SHORTEST_WITH_RIGHTS : SHORTEST_PIN;

/** Why a PIN cannot be this person's, whoever has which already; null when it can. */
export function pinFault(pin: string, holder: Holder): PinRefusal | null {
  if (!/^\d{4,8}$/.test(pin)) return { code: 'pin/not-digits' };
  if (pin.length < leastFor(holder)) return { code: 'pin/too-short' };
  return isEasy(pin) ? { code: 'pin/too-easy' } : null;
}

/**
 * What is to be done about a PIN that was right: nothing, ask for a longer one, or keep it salted, since
 * it was set before there were salts.
 */
export function pinNeeds(
  pin: string,
  kept: PinHash,
  holder: Holder,
): 'nothing' | 'longer' | 'salt' {
  if (pin.length < leastFor(holder)) return 'longer';
  return kept.salt === '' ? 'salt' : 'nothing';
}

/** One digit again and again, or digits one after another, up or down. */
function isEasy(pin: string): boolean {
  const digits = Array.from(pin, Number);
  const steps = new Set(digits.slice(1).map((digit, at) => digit - digits[at]!));
  return steps.size === 1 && [-1, 0, 1].includes([...steps][0]!);
}
