/**
 * Whether whoever wrote an entry was allowed to. Devices ask before they write; the server asks
 * again when it arrives, since a device may not have heard yet of a right that was taken away, or
 * may have been tampered with.
 */
import type { BodyOf, EntryOf, Kind, KnownEntry } from '../daybook/kinds';
import type { Breach } from '../judging/verdict';
import { percentOf } from '../money/percent';
import { rateOf } from '../money/units';
import type { PinHash } from './pin';
import { takesCashOut } from '../drawer/cash-places';
import { may, type Person, type Right } from './rights';

export interface PersonWithLimits extends Person {
  /** Percent that may be taken off a line without a right. */
  readonly discountUpTo: string;
}

/** Everybody as they were when an entry was written. */
export interface PeopleThen {
  person(id: string): PersonWithLimits | undefined;
  /** What was kept of their PIN, or null for none. */
  pin(id: string): PinHash | null;
}

type Needs = {
  readonly [K in Kind]: (entry: EntryOf<K>, by?: PersonWithLimits) => readonly Right[];
};

const nothing = (): readonly Right[] => [];
const setUp = (): readonly Right[] => ['set-up'];
const planEvent = (): readonly Right[] => ['event.plan'];
const settle = (): readonly Right[] => ['event.settle'];
const moveStock = (): readonly Right[] => ['stock.move'];

/** The right that each kind of entry asks for. The compiler asks for every kind. */
const needs: Needs = {
  'business.set': setUp,
  'business.lock': setUp,
  'business.cash': setUp,
  'business.points': setUp,
  'business.invoicing': setUp,
  'business.reminders': setUp,
  'reward.set': setUp,
  'tax.set': setUp,
  'category.set': setUp,
  'way.set': setUp,
  'item.set': setUp,
  'item.supply': setUp,
  'supplier.set': setUp,
  'place.set': setUp,
  'maker.set': setUp,
  'photo.set': setUp,
  'table.set': setUp,
  'staff.set': setUp,
  'staff.pay': setUp,
  // Everybody sets their own; whose it may be besides is asked below.
  'pin.set': ({ body, by }) => (body.person === by ? [] : ['set-up']),
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
  // What one of them has, the other can spend.
  'customer.joined': setUp,
  'event.set': planEvent,
  'event.taxes': planEvent,
  'event.ways': planEvent,
  'event.costs': planEvent,
  'event.prices': planEvent,
  'event.people': planEvent,
  // What is still to be brought anybody says, and ticks off.
  'event.bring': nothing,
  'event.ticked': nothing,
  'event.stage': nothing,
  'event.back': planEvent,
  'drawer.opened': nothing,
  'drawer.counted': nothing,
  // It says that a count was wrong, for good.
  'drawer.late': () => ['count.accept'],
  'cards.reported': settle,
  'cards.joined': settle,
  'money.came': settle,
  'money.undone': settle,
  'handed.in': settle,
  'bank.set': setUp,
  'bank.stated': settle,
  'bank.joined': settle,
  'ledger.chart': setUp,
  'ledger.handed': settle,
  'tips.shared': settle,
  'paid.out': settle,
  'maker.mailed': settle,
  'event.settled': settle,
  'cash.moved': ({ body }) => (takesCashOut(body) ? ['cash.out'] : []),
  'stock.moved': moveStock,
  // Anybody drafts a list, packs for one, and counts; approving asks by what the list is for (judging/stock.ts).
  'list.set': nothing,
  'list.line': nothing,
  'list.stage': nothing,
  'list.packed': nothing,
  'list.mailed': () => ['order.approve'],
  'count.set': nothing,
  'count.noted': nothing,
  'count.accepted': () => ['count.accept'],
  'count.ended': nothing,
  'slip.set': nothing,
  'slip.line': nothing,
  'slip.taken': nothing,
  'slip.gone': nothing,
  'sale.rung': ({ body }, by) => [
    ...saleRights(body.lines, by?.discountUpTo ?? '0', body.isUpliftWaived === true),
    ...backRights(body),
  ],
  'sale.voided': () => ['sale.void'],
  'void.undone': () => ['sale.void'],
  'return.made': () => ['refund'],
  'sale.corrected': () => ['sale.void'],
  'refund.made': () => ['refund.unlinked'],
  'payment.asked': nothing,
  // Beyond what the vendor lets devices carry, somebody must take the risk on.
  'payment.taken': ({ body }) => [
    ...(body.card?.isOverLimit === true ? (['card.carry'] as const) : []),
    ...(body.held?.isOverLimit === true ? (['owe.over'] as const) : []),
  ],
  'payment.result': nothing,
  'refund.result': nothing,
  // Of a sale that has been rung up, or in a colleague's cash: the books tell (judging/reversal.ts).
  'payment.reversed': nothing,
  'hold.decided': nothing,
  'voucher.set': () => ['voucher.set'],
  'voucher.lapsed': () => ['voucher.set'],
  'held.moved': () => ['voucher.set'],
  'points.moved': () => ['voucher.set'],
  // What is sold so later was agreed here.
  'order.set': ({ body }, by) => saleRights(body.lines, by?.discountUpTo ?? '0'),
  'order.terms': nothing,
  'order.stage': nothing,
  // Goods go out for it, and no money comes in here.
  'order.paid': () => ['voucher.set'],
  // Of a sale it moves nothing; else somebody owes what nobody sold at the counter.
  'invoice.made': ({ body }) => (body.of.is === 'sale' ? [] : ['invoice']),
  'invoice.credited': () => ['invoice'],
  // Somebody owes again and again what nobody sold.
  'charge.set': () => ['invoice'],
  'charge.again': () => ['invoice'],
  // What the server said (judging/charge.ts).
  'charge.paid': nothing,
  'charge.failed': nothing,
  // What the server said.
  'invoice.numbered': nothing,
  'invoice.asked': nothing,
  'reminder.asked': () => ['invoice'],
  'receipt.asked': nothing,
  'looseEnd.settled': setUp,
  'looseEnd.handed': settle,
};

/** The rights that writing this asks of this person; none if everybody may. */
export function rightsNeeded(entry: KnownEntry, by?: PersonWithLimits): readonly Right[] {
  const need = needs[entry.kind] as (entry: KnownEntry, by?: PersonWithLimits) => readonly Right[];
  return need(entry, by);
}

/**
 * The breach an entry is, or null. A right counts if the writer has it or a colleague has lent it.
 * Nobody but an owner makes an owner, changes one, gives away a right or a discount beyond their own,
 * raises their own, or sets a PIN that somebody else has set already.
 */
export function breachOf(entry: KnownEntry, people: PeopleThen): Breach | null {
  const by = entry.by === null ? undefined : people.person(entry.by);
  const lacked = rightsNeeded(entry, by).find((right) => !hasRight(entry, right, people));
  if (lacked !== undefined) return missing(entry, lacked);
  if (entry.kind === 'staff.set') return personBreach(entry, people);
  if (entry.kind === 'pin.set') {
    const { person, pin } = entry.body;
    return mayBePin(entry, person, pin, people) ? null : missing(entry, 'set-up');
  }
  return null;
}

/** Whether the writer has a right, or a colleague lent it. */
export const hasRight = (
  { by, lentBy }: Pick<KnownEntry, 'by' | 'lentBy'>,
  right: Right,
  people: Pick<PeopleThen, 'person'>,
): boolean =>
  [by, lentBy].some((id) => id !== null && id !== undefined && may(people.person(id), right));

export const missing = ({ by }: Pick<KnownEntry, 'by'>, right: Right): Breach => ({
  code: 'right/missing',
  right,
  by,
});

const isByOwner = ({ by, lentBy }: KnownEntry, people: PeopleThen): boolean =>
  [by, lentBy].some((id) => {
    const person = id === null || id === undefined ? undefined : people.person(id);
    return person?.isActive === true && person.role === 'owner';
  });

function personBreach(entry: EntryOf<'staff.set'>, people: PeopleThen): Breach | null {
  if (isByOwner(entry, people)) return null;
  const { id, role, rights, discountUpTo, pin } = entry.body;
  const before = people.person(id);
  const isOwners = role === 'owner' || before?.role === 'owner';
  if (isOwners || !mayBePin(entry, id, pin, people)) return missing(entry, 'set-up');
  // Nobody gives more than they may give themselves, to a colleague or to themselves.
  const own = entry.by === null ? undefined : people.person(entry.by);
  const most = Math.max(rateOf(before?.discountUpTo ?? '0'), rateOf(own?.discountUpTo ?? '0'));
  if (rateOf(discountUpTo) > most && !hasRight(entry, 'discount.over', people))
    return missing(entry, 'discount.over');
  const given = rights.find(
    (each) => before?.rights.includes(each) !== true && !hasRight(entry, each, people),
  );
  return given === undefined ? null : missing(entry, given);
}

/** One's own, the first one of somebody who has none, the one that is there already; else by an owner. */
function mayBePin(
  entry: KnownEntry,
  person: string,
  pin: PinHash | null | undefined,
  people: PeopleThen,
): boolean {
  const known = people.pin(person);
  const isSame = pin === undefined || (pin?.hash ?? null) === (known?.hash ?? null);
  const isOwn = entry.by === person && people.person(person)?.isActive === true;
  const isFirst = known === null && people.person(person)?.role !== 'owner';
  return isSame || isOwn || isFirst || isByOwner(entry, people);
}

/**
 * Set-up without the right to it must not change the books; what happened has happened. The compiler asks
 * for every kind, so that nothing new slips through.
 */
const isSetUp: Readonly<Record<Kind, boolean>> = {
  'business.set': true,
  'business.lock': true,
  'business.cash': true,
  'business.points': true,
  'business.invoicing': true,
  'business.reminders': true,
  'reward.set': true,
  'tax.set': true,
  'category.set': true,
  'way.set': true,
  'item.set': true,
  'item.supply': true,
  'supplier.set': true,
  'place.set': true,
  'maker.set': true,
  'maker.mailed': true,
  'photo.set': true,
  'table.set': true,
  'staff.set': true,
  'staff.pay': true,
  'pin.set': true,
  'device.set': true,
  'customer.set': true,
  'customer.consent': false,
  'customer.card': false,
  'customer.erased': true,
  'customer.joined': true,
  'event.set': true,
  'event.taxes': true,
  'event.ways': true,
  'event.costs': true,
  'event.prices': true,
  'event.people': true,
  'event.bring': true,
  'event.ticked': true,
  'event.stage': false,
  'event.back': true,
  'drawer.opened': false,
  'drawer.counted': false,
  // No cash has moved: what was counted and what was heard of later are only called by their name.
  'drawer.late': true,
  'cash.moved': false,
  // What others say, and what is worked out of it; money that was paid was paid.
  'cards.reported': true,
  'cards.joined': true,
  'money.came': true,
  'money.undone': true,
  // Cheques that were handed in are gone, whoever said so.
  'handed.in': false,
  'bank.set': true,
  'bank.stated': true,
  'bank.joined': true,
  'ledger.chart': true,
  'ledger.handed': true,
  'tips.shared': true,
  'paid.out': false,
  'event.settled': true,
  'stock.moved': false,
  'list.set': true,
  'list.line': true,
  'list.stage': true,
  'list.packed': false,
  'list.mailed': true,
  'count.set': true,
  'count.noted': false,
  // Nothing has moved: what was counted is only believed.
  'count.accepted': true,
  'count.ended': true,
  'slip.set': false,
  'slip.line': false,
  'slip.taken': false,
  'slip.gone': false,
  'sale.rung': false,
  'sale.voided': false,
  'void.undone': true,
  'return.made': false,
  'sale.corrected': true,
  'refund.made': false,
  'payment.asked': false,
  'payment.taken': false,
  'payment.result': false,
  'refund.result': false,
  'payment.reversed': false,
  'hold.decided': false,
  'voucher.set': true,
  // Nothing has gone anywhere: it is only owed no more.
  'voucher.lapsed': true,
  // Whoever holds the one that it made can have spent it.
  'held.moved': false,
  // Nothing was spent of them yet.
  'points.moved': true,
  'order.set': true,
  'order.terms': true,
  'order.stage': true,
  // What others say: nothing has changed hands here.
  'order.paid': true,
  // Nothing has changed hands: it is asked for, and has no number before it is accepted.
  'invoice.made': true,
  'invoice.credited': true,
  'charge.set': true,
  'charge.again': true,
  'charge.paid': true,
  'charge.failed': true,
  'invoice.numbered': true,
  'invoice.asked': false,
  // Nothing is sent of what nobody was allowed to ask for.
  'reminder.asked': true,
  'receipt.asked': false,
  'looseEnd.settled': true,
  'looseEnd.handed': true,
};

export const isBarred = ({ kind }: Pick<KnownEntry, 'kind'>): boolean => isSetUp[kind];

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
  'gross' | 'discount' | 'standing' | 'listPrice' | 'ordered'
>;

/**
 * A price of another making, the cash price charged to a card among them, asks for the one right; more off a line than R(gross × limit), rounded as
 * the slip rounds it, for the other. Standing discounts have been granted in the set-up.
 */
export function saleRights(
  all: readonly SoldLine[],
  limit: string,
  isUpliftWaived = false,
): readonly Right[] {
  // What was agreed of an order was judged then; that it is sold so, the books say (judging/order.ts).
  const lines = all.filter(({ ordered }) => ordered === undefined);
  const isWithin = lines.every(
    ({ gross, discount, standing = 0 }) =>
      Math.abs(discount - standing) <= percentOf(Math.abs(gross), limit),
  );
  const isChanged = isUpliftWaived || lines.some(({ listPrice }) => listPrice !== undefined);
  return [
    ...(isWithin ? [] : ['discount.over' as const]),
    ...(isChanged ? ['price.change' as const] : []),
  ];
}

/**
 * Goods that come back are money given back; without anything they could be of, without a sale.
 * (Exchanges and returns will name their sale.)
 */
function backRights({ lines, total }: BodyOf<'sale.rung'>): readonly Right[] {
  const back = lines.filter(({ gross }) => gross < 0);
  if (back.length === 0 && total >= 0) return [];
  const isUnlinked = total < 0 || back.some(({ item }) => item === null);
  return ['refund', ...(isUnlinked ? (['refund.unlinked'] as const) : [])];
}
