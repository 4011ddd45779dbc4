/** Where cash can be: drawers, the safe, bags for the bank, the owner's pocket, and what it is spent on. */
import type { SPENT_ON } from '../daybook/kinds/cash-moved';

export type SpentOn = (typeof SPENT_ON)[number];
/** A place as `cash.moved` names it. */
export type CashPlace = string;

export const SAFE: CashPlace = 'safe';
export const OWNER: CashPlace = 'owner';
/** A bag that is made by moving cash into it. */
export const NEW_BAG: CashPlace = 'bag';
export const inDrawer = (drawer: string): CashPlace => `drawer:${drawer}`;
export const inBag = (bag: string): CashPlace => `bag:${bag}`;
export const spentOn = (what: SpentOn): CashPlace => `spent:${what}`;

/** The drawer that a place is, or null. */
export const drawerAt = (place: CashPlace): string | null => idAfter('drawer:', place);
/** The bag that a place is, or null; a bag that is only being made has no id yet. */
export const bagAt = (place: CashPlace): string | null => idAfter('bag:', place);
export const spentAt = (place: CashPlace): string | null => idAfter('spent:', place);
const idAfter = (head: string, place: CashPlace): string | null =>
  place.startsWith(head) ? place.slice(head.length) : null;

/** What is done, from where the cash is taken and where it goes. */
export type CashAct =
  | 'paid-in'
  | 'paid-out'
  | 'to-owner'
  | 'to-safe'
  | 'float'
  | 'bagged'
  | 'unbagged'
  | 'changed'
  | 'moved';

export interface FromTo {
  readonly from: CashPlace;
  readonly to: CashPlace;
}

export function cashAct({ from, to }: FromTo): CashAct {
  if (from === to) return 'changed';
  if (spentAt(to) !== null) return 'paid-out';
  if (to === OWNER) return 'to-owner';
  if (to === NEW_BAG) return 'bagged';
  if (bagAt(from) !== null) return 'unbagged';
  if (from === OWNER || spentAt(from) !== null) return 'paid-in';
  if (to === SAFE) return 'to-safe';
  return from === SAFE ? 'float' : 'moved';
}

/** Acts that take cash to where nobody at the stall counts it, or out of a bag that is closed. */
const OUT: ReadonlySet<CashAct> = new Set([
  'paid-out',
  'to-owner',
  'to-safe',
  'bagged',
  'unbagged',
]);
export const takesCashOut = (fromTo: FromTo): boolean => OUT.has(cashAct(fromTo));
