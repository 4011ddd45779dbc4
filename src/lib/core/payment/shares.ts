/** Sharing a slip out between several people: who pays how much of it, and how much is left of that. */
import { shareByWeights } from '../money/apportion';
import { minor, sum, type Minor } from '../money/units';
import type { SideQuote } from '../pricing/slip';
import type { PaidPart, Share } from '../slip/open-slip';

/** More people than this at one slip is a slip of the finger. */
export const MOST_SHARES = 1000;

/**
 * The same for everybody, as near as whole minor units allow: `⌊T/n⌋` each, and the `T mod n` that
 * are left one by one to the first.
 *
 * Units: minor units; the shares sum to the total exactly.
 * @throws {RangeError} If there is not a whole number of people from 1 to `MOST_SHARES`.
 * @example shareEqually(10000, 3) // => [3334, 3333, 3333]
 */
export function shareEqually(total: number, between: number): Minor[] {
  if (!Number.isSafeInteger(between) || between < 1 || between > MOST_SHARES) {
    throw new RangeError(
      `${String(between)} is not a number of people from 1 to ${String(MOST_SHARES)}`,
    );
  }
  const each = Math.floor(minor(total) / between);
  const over = total - each * between;
  return Array.from({ length: between }, (_, at) => minor(at < over ? each + 1 : each));
}

/** Why a slip cannot be shared out so. */
export type ShareRefusal =
  | { readonly code: 'share/too-few' }
  | { readonly code: 'share/not-an-amount'; readonly at: number }
  /** What the shares leave of the total; below zero when they are too much together. */
  | { readonly code: 'share/not-the-total'; readonly left: number }
  | { readonly code: 'share/begun' };

export type ShareOutcome =
  | { readonly ok: true; readonly shares: readonly Share[] }
  | { readonly ok: false; readonly refusal: ShareRefusal };

/** The same for each of `between` people; the odd minor units go to the first. */
export function sharedEqually(total: number, between: number): ShareOutcome {
  if (!Number.isInteger(between) || between < 2) return refuse({ code: 'share/too-few' });
  return {
    ok: true,
    shares: shareEqually(total, between).map((amount, at) => ({ name: nameAt(at), amount })),
  };
}

/** What each says they pay; together it must be the total. */
export function sharedByAmounts(total: number, amounts: readonly number[]): ShareOutcome {
  if (amounts.length < 2) return refuse({ code: 'share/too-few' });
  const at = amounts.findIndex((amount) => !Number.isSafeInteger(amount) || amount <= 0);
  if (at !== -1) return refuse({ code: 'share/not-an-amount', at });
  const left = minor(total) - sum(amounts);
  if (left !== 0) return refuse({ code: 'share/not-the-total', left });
  return { ok: true, shares: amounts.map((amount, i) => ({ name: nameAt(i), amount })) };
}

/**
 * Who had what: each pays for their own lines, and of what is nobody's own, the service charge among
 * it, a share in proportion to that; equally where nobody has anything of their own.
 *
 * Units: minor units with tax; the shares sum to the total exactly.
 * @param whose For each line, the person who had it, from 0; null for all of them.
 */
export function sharedByLines(
  { lines, total }: Pick<SideQuote, 'lines' | 'total'>,
  whose: readonly (number | null)[],
  people: number,
): ShareOutcome {
  if (people < 2) return refuse({ code: 'share/too-few' });
  const own = Array.from({ length: people }, (_, person) =>
    sum(lines.map((line, at) => (whose[at] === person ? line.total : 0))),
  );
  const common = minor(total) - sum(own);
  const hasOwn = own.some((amount) => amount > 0);
  const weights = own.map((amount) => (hasOwn ? Math.max(0, amount) : 1));
  const extra = common === 0 ? own.map(() => 0) : shareByWeights(common, weights);
  const shares = own.map((amount, at) => ({ name: nameAt(at), amount: amount + extra[at]! }));
  const at = shares.findIndex(({ amount }) => amount <= 0);
  if (at !== -1) return refuse({ code: 'share/not-an-amount', at });
  return { ok: true, shares };
}

/** Minor units that are left of each share, on the cash side. */
export const leftOfShares = (
  shares: readonly Share[],
  paid: readonly Pick<PaidPart, 'share' | 'clears'>[],
): readonly number[] =>
  shares.map(
    ({ amount }, at) =>
      amount - sum(paid.map(({ share, clears }) => (share === at + 1 ? clears : 0))),
  );

const nameAt = (at: number): string => String(at + 1);

const refuse = (refusal: ShareRefusal): ShareOutcome => ({ ok: false, refusal });
