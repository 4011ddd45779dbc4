/**
 * Numbers of vouchers. Those that the till makes cannot be guessed, and say whose they are and when one character is
 * mistyped; those of cards that were printed elsewhere are taken as they are.
 */
import { sha256 } from '@noble/hashes/sha2.js';
import { utf8ToBytes } from '@noble/hashes/utils.js';

/** Figures and letters that are not mistaken for one another (RFC 4648 has 32 as well, but not these). */
const SIGNS = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
const ALL = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ';

/** V, two signs of the business, ten of chance (50 bits), one to check by. */
const OWN = /^V[0-9A-Z]{13}$/;
const CHANCE = 10;

/** As it is kept and compared: without blanks and dashes, in capitals. */
export const voucherNumber = (typed: string): string =>
  typed
    .normalize('NFKC')
    .toUpperCase()
    .replaceAll(/[^0-9A-Z]/g, '');

export const isVoucherNumber = (text: string): boolean => /^[0-9A-Z]{4,32}$/.test(text);

/** As people read it: in fours. */
export const voucherText = (number: string): string => number.match(/.{1,4}/g)?.join(' ') ?? '';

/** A new number. @param random Ten random bytes at least. @throws If there are fewer. */
export function newVoucherNumber(business: string, random: Uint8Array): string {
  if (random.length < CHANCE) throw new RangeError(`a voucher's number needs ten random bytes`);
  let number = `V${signOf(business)}`;
  for (const byte of random.slice(0, CHANCE - 1)) {
    let next = byte;
    while (isBlindTo(number, signAt(next))) next += 1;
    number += signAt(next);
  }
  // The check is one of the same signs: with another last sign of chance it is another.
  for (let last = random[CHANCE - 1]!; ; last += 1) {
    const bare = number + signAt(last);
    const check = checkOf(bare);
    const isSeen = !isBlindTo(number, signAt(last)) && !isSameTurned(bare, check);
    if (SIGNS.includes(check) && isSeen) return bare + check;
  }
}

/** Of a few pairs of signs the check does not say which came first: a number of ours has none of them. */
function isBlindTo(before: string, sign: string): boolean {
  const last = before.at(-1)!;
  return last !== sign && checkOf(before + sign) === checkOf(before.slice(0, -1) + sign + last);
}

/** Whether it would be right as well if the check stood before the last sign. */
const isSameTurned = (bare: string, check: string): boolean =>
  bare.at(-1) !== check && checkOf(bare.slice(0, -1) + check) === bare.at(-1);

const signAt = (byte: number): string => SIGNS[byte % SIGNS.length]!;

export type NumberFault = 'no-number' | 'mistyped' | 'other-business';

/** What is wrong with a number itself; whether there is such a voucher the books say. */
export function numberFault(number: string, business: string): NumberFault | null {
  if (!isVoucherNumber(number)) return 'no-number';
  if (!OWN.test(number)) return null;
  if (checkOf(number.slice(0, -1)) !== number.at(-1)) return 'mistyped';
  return number.slice(1, 3) === signOf(business) ? null : 'other-business';
}

/** Two signs that tell businesses apart, most of the time. */
const signOf = (business: string): string => {
  const [a = 0, b = 0] = sha256(utf8ToBytes(`voucher ${business}`));
  return signAt(a) + signAt(b);
};

/** ISO/IEC 7064, MOD 37,36: finds one wrong character, and nearly always two that changed places. */
function checkOf(text: string): string {
  let product = 36;
  for (const sign of text) {
    const sum = (product + ALL.indexOf(sign)) % 36 || 36;
    product = (sum * 2) % 37;
  }
  return ALL[(37 - product) % 36]!;
}
