/** What makes a PIN good enough, and what is kept of it. */

/** What a device keeps of a PIN: enough to check it with no network, not the PIN itself. */
export interface PinHash {
  /** PBKDF2-HMAC-SHA-256 over the PIN with the business's id as salt, hex. */
  readonly hash: string;
  readonly iterations: number;
}

export const SHORTEST_PIN = 4;
export const LONGEST_PIN = 8;

export type PinRefusal =
  | { readonly code: 'pin/not-digits' }
  | { readonly code: 'pin/too-easy' }
  | { readonly code: 'pin/taken' };

/** Why a PIN cannot be used, whoever has which already; null when it can. */
export function pinFault(pin: string): PinRefusal | null {
  if (!/^\d{4,8}$/.test(pin)) return { code: 'pin/not-digits' };
  return isEasy(pin) ? { code: 'pin/too-easy' } : null;
}

/** One digit again and again, or digits one after another, up or down. */
function isEasy(pin: string): boolean {
  const digits = Array.from(pin, Number);
  const steps = new Set(digits.slice(1).map((digit, at) => digit - digits[at]!));
  return steps.size === 1 && [-1, 0, 1].includes([...steps][0]!);
}

interface Holder {
  readonly id: string;
  readonly name: string;
  readonly isActive: boolean;
  readonly pin: PinHash | null;
}

/** Whether somebody else who is still here has this PIN. */
export const isTaken = (people: readonly Holder[], id: string, { hash }: PinHash): boolean =>
  people.some((each) => each.id !== id && each.isActive && each.pin?.hash === hash);

/**
 * People who have the same PIN after all: two devices may set them with no network between them.
 * @returns Names, each group in the order of `people`.
 */
export function samePins(people: readonly Holder[]): string[][] {
  const byHash = new Map<string, string[]>();
  for (const { name, isActive, pin } of people) {
    if (!isActive || pin === null) continue;
    byHash.set(pin.hash, [...(byHash.get(pin.hash) ?? []), name]);
  }
  return [...byHash.values()].filter((names) => names.length > 1);
}
