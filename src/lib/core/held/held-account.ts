/**
 * Accounts that somebody holds: what a customer owes, credit that is kept for them, vouchers, which are whoever's
 * has their number, and deposits on orders. A slip can be paid from one, and what is paid in on one is a line of a slip.
 */
import { isAccount } from '../journal/accounts';
import { sum } from '../money/units';
import type { Method } from '../payment/methods';
import { isPointsOf, isPromotion } from '../points/promotion-methods';
import { isVoucherNumber } from './voucher-number';

export const HELD_HEADS = ['customer', 'credit', 'voucher', 'deposit'] as const;
export type HeldHead = (typeof HELD_HEADS)[number];
/** Credits are what is owed to whoever holds it, debits what they owe. */
export type HeldAccount = `${HeldHead}:${string}`;

export interface HeldParts {
  readonly head: HeldHead;
  /** The customer's or the order's id, or the voucher's number. */
  readonly id: string;
}

/** @returns Null for an account that nobody holds. */
export function heldParts(account: string): HeldParts | null {
  const colon = account.indexOf(':');
  const head = HELD_HEADS.find((each) => each === account.slice(0, colon));
  return head === undefined || !isAccount(account) ? null : { head, id: account.slice(colon + 1) };
}

export const headOfAccount = (account: HeldAccount): HeldHead =>
  account.slice(0, account.indexOf(':')) as HeldHead;

/** Where credit is a way to pay: by which, and on which account of a customer's. */
export function asCredit(
  ways: readonly { readonly id: string; readonly method: string; readonly isActive: boolean }[],
  customer: string,
): { readonly way: string; readonly account: HeldAccount } | null {
  const way = ways.find(({ method, isActive }) => method === 'credit' && isActive);
  return way === undefined ? null : { way: way.id, account: `credit:${customer}` };
}

const UUID = /^[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

export function isHeld(text: string): text is HeldAccount {
  const parts = heldParts(text);
  if (parts === null) return false;
  return parts.head === 'voucher' ? isVoucherNumber(parts.id) : UUID.test(parts.id);
}

/** What has a statement of its own: beside those, a customer's points, which are owed to them as well. */
export type StatedAccount = HeldAccount | `points:${string}`;

export const isStated = (text: string): text is StatedAccount =>
  isHeld(text) || (isPointsOf(text) && UUID.test(text.slice('points:'.length)));

/** What each way to pay is paid from; a way that is not here is paid with money. */
const HEAD_OF: Readonly<Partial<Record<Method, HeldHead>>> = {
  account: 'customer',
  credit: 'credit',
  voucher: 'voucher',
  deposit: 'deposit',
};
export const headOfMethod = (method: string): HeldHead | null => HEAD_OF[method as Method] ?? null;

/** Whether it is paid from what somebody holds or was given, and no money comes in. */
export const isHeldMethod = (method: string): boolean =>
  headOfMethod(method) !== null || isPromotion(method);

/** What all accounts of each head come to together, of those that stand at anything. Minor units. */
export function heldTotals(
  balances: readonly { readonly account: string; readonly amount: number }[],
): readonly { readonly head: HeldHead; readonly amount: number }[] {
  return HELD_HEADS.flatMap((head) => {
    const own = balances.filter(({ account }) => heldParts(account)?.head === head);
    return own.length === 0 ? [] : [{ head, amount: sum(own.map(({ amount }) => amount)) }];
  });
}
