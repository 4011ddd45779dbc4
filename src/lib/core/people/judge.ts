/**
 * Whether whoever wrote an entry was allowed to. Devices ask before they write; the server asks
 * again when it arrives, since a device may not have heard yet of a right that was taken away, or
 * may have been tampered with.
 */
import type { BodyOf, EntryOf, Kind, KnownEntry } from '../daybook/kinds';
import { rateOf } from '../money/units';
import { may, type Person, type Right } from './rights';

export interface PersonWithLimits extends Person {
  /** Percent that may be taken off a line without a right. */
  readonly discountUpTo: string;
}

/** Everybody as they were when an entry was written. */
export type PeopleThen = (id: string) => PersonWithLimits | undefined;

/** Who lacked what. Set-up that breaks it is not applied; what happened at the stall is, and marked. */
export interface Breach {
  readonly code: 'right/missing';
  readonly right: Right;
  readonly by: string | null;
}

type Needs = {
  readonly [K in Kind]: (entry: EntryOf<K>, by?: PersonWithLimits) => readonly Right[];
};

const nothing = (): readonly Right[] => [];
const setUp = (): readonly Right[] => ['set-up'];

/** The right that each kind of entry asks for. The compiler asks for every kind. */
const needs: Needs = {
  'business.set': setUp,
  'tax.set': setUp,
  'category.set': setUp,
  'way.set': setUp,
  'item.set': setUp,
  'maker.set': setUp,
  'photo.set': setUp,
  'table.set': setUp,
  'staff.set': setUp,
  // A device names itself when it is enrolled, before anybody has signed in on it.
  'device.set': ({ body, device }) => (body.id === device ? [] : ['set-up']),
  // Anybody may note a customer down; what is agreed with one is worth money.
  'customer.set': ({ body }, by) => {
    const right = agreementRight(body, by);
    return right === null ? [] : [right];
  },
  'customer.consent': nothing,
  'customer.card': nothing,
  'customer.erased': setUp,
  'event.set': setUp,
  'event.stage': nothing,
  'drawer.opened': nothing,
  'drawer.counted': nothing,
  'stock.moved': nothing,
  'slip.set': nothing,
  'slip.line': nothing,
  'slip.taken': nothing,
  'slip.gone': nothing,
  'sale.rung': ({ body }, by) =>
    saleRights(body.lines, by?.discountUpTo ?? '0', body.isUpliftWaived === true),
  'sale.voided': () => ['sale.void'],
  'payment.asked': nothing,
  // Beyond what the vendor lets devices carry, somebody must take the risk on.
  'payment.taken': ({ body }) => (body.card?.isOverLimit === true ? ['card.carry'] : []),
  'payment.result': nothing,
  'payment.reversed': nothing,
  'receipt.asked': nothing,
  'looseEnd.settled': setUp,
};

/** The rights that writing this asks of this person; none if everybody may. */
export function rightsNeeded(entry: KnownEntry, by?: PersonWithLimits): readonly Right[] {
  const need = needs[entry.kind] as (entry: KnownEntry, by?: PersonWithLimits) => readonly Right[];
  return need(entry, by);
}

/**
 * The breach an entry is, or null. A right counts if the writer has it or a colleague has lent it.
 * Nobody but an owner makes an owner, changes one, or gives away a right they do not have.
 */
export function breachOf(entry: KnownEntry, people: PeopleThen): Breach | null {
  const by = entry.by === null ? undefined : people(entry.by);
  const lender = entry.lentBy === undefined ? undefined : people(entry.lentBy);
  const has = (right: Right): boolean => may(by, right) || may(lender, right);
  const missing = (right: Right): Breach => ({ code: 'right/missing', right, by: entry.by });
  const lacked = rightsNeeded(entry, by).find((right) => !has(right));
  if (lacked !== undefined) return missing(lacked);
  if (entry.kind !== 'staff.set') return null;
  const isOwner = [by, lender].some((each) => each?.isActive === true && each.role === 'owner');
  const before = people(entry.body.id);
  if (isOwner) return null;
  if (entry.body.role === 'owner' || before?.role === 'owner') return missing('set-up');
  const given = entry.body.rights.find((each) => !before?.rights.includes(each) && !has(each));
  return given === undefined ? null : missing(given);
}

/** Set-up without the right to it must not change the books; what happened has happened. */
export const isBarred = ({ kind }: KnownEntry): boolean =>
  (kind.endsWith('.set') && kind !== 'slip.set') ||
  kind === 'customer.erased' ||
  kind === 'looseEnd.settled';

type Agreed = Pick<BodyOf<'customer.set'>, 'discount' | 'creditLimit' | 'terms'>;

/** The right that agreeing this with a customer asks for: what a person may give anybody is free. */
export function agreementRight(
  { discount, creditLimit, terms }: Agreed,
  by?: Pick<PersonWithLimits, 'discountUpTo'>,
): Right | null {
  const isWithinReach = rateOf(discount) <= rateOf(by?.discountUpTo ?? '0');
  return isWithinReach && creditLimit === 0 && terms === 0 ? null : 'set-up';
}

type SoldLine = Pick<
  BodyOf<'sale.rung'>['lines'][number],
  'gross' | 'discount' | 'standing' | 'listPrice'
>;

/**
 * A price of another making, the cash price charged to a card among them, asks for the one right; more off a line than R(gross × limit), rounded as
 * the slip rounds it, for the other. Standing discounts have been granted in the set-up.
 */
export function saleRights(
  lines: readonly SoldLine[],
  limit: string,
  isUpliftWaived = false,
): readonly Right[] {
  const rate = BigInt(rateOf(limit));
  const isWithin = lines.every(({ gross, discount, standing = 0 }) => {
    const most = (BigInt(Math.abs(gross)) * rate + 500_000n) / 1_000_000n;
    return BigInt(Math.abs(discount - standing)) <= most;
  });
  const isChanged = isUpliftWaived || lines.some(({ listPrice }) => listPrice !== undefined);
  return [
    ...(isWithin ? [] : ['discount.over' as const]),
    ...(isChanged ? ['price.change' as const] : []),
  ];
}
