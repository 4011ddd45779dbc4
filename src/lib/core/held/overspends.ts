/** Whether postings take more from an account that somebody holds than there is on it. Minor units. */
import { NOBODY_JOINED, type Joined } from '../customer/joined';
import type { Posting } from '../journal/posting';
import { sum } from '../money/units';
import { heldParts } from './held-account';

/** What stands on accounts, by their names: credits below nothing; nothing where one is missing. */
export type Balances = ReadonlyMap<string, number>;

export interface Overspent {
  readonly account: string;
  readonly taken: number;
  /** What was left on it before. */
  readonly left: number;
}

/**
 * The first account of which more is taken than is kept there; what customers owe has limits of its own.
 * @param joined Records of customers that are of one person: what they have is kept on all of theirs together.
 */
export function overspends(
  postings: readonly Posting[],
  balances: Balances,
  joined: Joined = NOBODY_JOINED,
): Overspent | null {
  const taken = new Map<string, number>();
  for (const { account: posted, amount = 0 } of postings) {
    const head = heldParts(posted)?.head;
    const account = joined.account(posted);
    if (head !== undefined && head !== 'customer')
      taken.set(account, (taken.get(account) ?? 0) + amount);
  }
  for (const [account, amount] of taken) {
    const before = sum(joined.accounts(account).map((each) => balances.get(each) ?? 0));
    if (amount > 0 && before + amount > 0)
      return { account, taken: amount, left: Math.max(0, 0 - before) };
  }
  return null;
}
