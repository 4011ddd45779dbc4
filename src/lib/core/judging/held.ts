/** Accounts that somebody holds: whose they are, what was agreed, and that nothing is spent twice. Minor units. */
import type { EntryOf } from '../daybook/kinds';
import { heldParts, isHeldMethod } from '../held/held-account';
import {
  keptOf,
  lowersFor,
  payableFor,
  purposeOf,
  taxWithin,
  type KeptTax,
} from '../held/one-purpose';
import { accountFor, lastDayOf } from '../held/spend';
import { overspends } from '../held/overspends';
import { voucherNumber } from '../held/voucher-number';
import type { Posting } from '../journal/posting';
import type { Evidence } from './evidence';
import type { Doubt } from './verdict';

/** A part that was paid from an account: the customer's own, or of a voucher that could be spent, within what was agreed. */
export function heldDoubt(
  { at, stamp, body }: EntryOf<'payment.taken'>,
  evidence: Evidence,
): Doubt | null {
  const { held, method, customer, reference, charge } = body;
  if (held === undefined) return null;
  const { account, isOverLimit } = held;
  const { books } = evidence;
  const order = books.row('orders', heldParts(account)?.id ?? '');
  if (account !== accountFor(method, { customer, reference, order }))
    return { code: 'payment/account', found: account };
  if (method === 'voucher') {
    const number = voucherNumber(reference);
    const state = books.row('voucherStates', number);
    const isBlocked = state?.isBlocked === true && state.setStamp < stamp;
    const sold = books.where('vouchers', 'number', number);
    const until = lastDayOf({ sold, state });
    // Zones of clocks are a day apart at most.
    const day = new Date(Date.parse(at) - DAY).toISOString().slice(0, 10);
    const purpose = purposeOf(sold);
    if (purpose?.id !== held.lowers?.id)
      return { code: 'payment/purpose', found: held.lowers?.id ?? '', wanted: purpose?.id ?? '' };
    if (isBlocked || (until !== '' && until < day))
      return { code: 'payment/voucher', found: number };
  }
  if (method !== 'account' || isOverLimit || customer === null) return null;
  const limits = evidence.agreedWith(customer, stamp).map((each) => each.creditLimit);
  const owes = evidence.standsOn(account) + charge;
  const isWithin = limits.some((limit) => limit === null || owes <= limit);
  return isWithin
    ? null
    : { code: 'payment/over-limit', found: owes, wanted: Math.max(0, ...limits.map(Number)) };
}

const DAY = 86_400_000;

/** Lines that are paid in: on accounts of customers that there are, and on vouchers that nobody was sold before. */
export function paidInDoubt(entry: EntryOf<'sale.rung'>, evidence: Evidence): Doubt | null {
  const seen = new Set<string>();
  for (const { account, price, gross, quantity, name, pays, kept, total } of entry.body.lines) {
    if (account === undefined) continue;
    if (gross !== price || quantity !== 1000) return { code: 'sale/line-sum', found: name };
    const fault = seen.has(account)
      ? ({ code: 'sale/paid-in', found: account } as const)
      : (targetFault(account, evidence) ??
        debtFault(pays, account, evidence) ??
        keptFault(kept, { account, value: total }, entry, evidence));
    if (fault !== null) return fault;
    seen.add(account);
  }
  return null;
}

/** What is paid of a sale was bought on that account; what is paid of an invoice was asked of whose it is. */
function debtFault(
  pays: string | undefined,
  account: string,
  { books, joined }: Evidence,
): Doubt | null {
  if (pays === undefined) return null;
  const isIts = (other: string | undefined): boolean =>
    other !== undefined && joined.account(other) === joined.account(account);
  const invoice = books.row('invoices', pays);
  if (invoice !== undefined)
    return isIts(`customer:${invoice.customer}`) ? null : { code: 'sale/paid-in', found: pays };
  const parts = books.row('sales', pays)?.payments ?? [];
  return parts.some((part) => isIts(books.row('payments', part)?.held?.account))
    ? null
    : { code: 'sale/paid-in', found: pays };
}

/** A voucher is sold with the tax of what it is for, as that was set up then or lately; one for any goods with none. */
function keptFault(
  kept: KeptTax | undefined,
  { account, value }: { readonly account: string; readonly value: number },
  { event, stamp }: Pick<EntryOf<'sale.rung'>, 'event' | 'stamp'>,
  { history, books }: Evidence,
): Doubt | null {
  if (heldParts(account)?.head !== 'voucher') return null;
  const ways = books.rows('ways').filter(({ method }) => method === 'voucher');
  const purposes = ways.flatMap(({ id }) =>
    history.inForce('way.set', id, stamp).map(({ purpose }) => purpose),
  );
  // At an event a tax may stand in the place of another, or none.
  const events = event === null ? [] : history.inForce('event.set', event, stamp);
  const swapped = events.flatMap(({ swaps = [] }) =>
    swaps.flatMap(({ from, to }) => (purposes.includes(from) ? [to] : [])),
  );
  const isPutAway = purposes.some(
    (id) => id !== '' && history.inForce('tax.set', id, stamp).some(({ isActive }) => !isActive),
  );
  if (kept === undefined) {
    const isNone =
      purposes.length === 0 || purposes.includes('') || swapped.includes(null) || isPutAway;
    return isNone ? null : { code: 'sale/kept', found: 0, wanted: value };
  }
  const isIts = purposes.includes(kept.id) || swapped.includes(kept.id);
  const isRight = history
    .inForce('tax.set', kept.id, stamp)
    .some(
      (tax) =>
        tax.rate === kept.rate && taxWithin(value, { ...tax, id: kept.id }).amount === kept.amount,
    );
  return isIts && isRight ? null : { code: 'sale/kept', found: kept.amount };
}

function targetFault(account: string, { books, history }: Evidence): Doubt | null {
  const { head = '', id = '' } = heldParts(account) ?? {};
  if (head === 'voucher')
    return books.where('vouchers', 'number', id).length > 0
      ? { code: 'sale/voucher-again', found: id }
      : null;
  const isThere =
    head === 'deposit' ? books.row('orders', id) !== undefined : history.knows('customer.set', id);
  return isThere ? null : { code: 'sale/paid-in', found: account };
}

/** A voucher of which something is said is one that there is. */
export function judgeVoucher({ body }: EntryOf<'voucher.set'>, { books }: Evidence): Doubt | null {
  const isThere = books.where('vouchers', 'number', body.number).length > 0;
  return isThere ? null : { code: 'voucher/unknown', found: body.number };
}

/** It ran out days ago wherever it is written, and all that is left of it is taken off. */
export function judgeLapsed(
  { at, body }: EntryOf<'voucher.lapsed'>,
  evidence: Evidence,
): Doubt | null {
  const { number, amount } = body;
  const { books } = evidence;
  const sold = books.where('vouchers', 'number', number);
  if (sold.length === 0) return { code: 'voucher/unknown', found: number };
  const until = lastDayOf({ sold, state: books.row('voucherStates', number) });
  const left = 0 - evidence.standsOn(`voucher:${number}`);
  // Zones of clocks are a day apart at most.
  const kept = keptOf(sold, amount);
  const isOver = until !== '' && until < new Date(Date.parse(at) + DAY).toISOString().slice(0, 10);
  if (isOver && amount === left && !isSameTax(body.kept, kept))
    return { code: 'sale/kept', found: body.kept?.amount ?? 0, wanted: kept?.amount ?? 0 };
  return isOver && amount === left
    ? null
    : { code: 'voucher/not-over', found: amount, wanted: isOver ? left : 0 };
}

/** What is moved goes to an account that there is, or makes a voucher that there was not. */
export function judgeHeldMoved({ body }: EntryOf<'held.moved'>, evidence: Evidence): Doubt | null {
  // Of a customer's account goes only what they paid too much.
  const left = -evidence.standsOn(body.from);
  if (heldParts(body.from)?.head === 'customer' && body.amount > left)
    return { code: 'held/overspent', found: body.amount, wanted: Math.max(0, left) };
  // What is for goods of one tax goes on a voucher like it, and nowhere else.
  const from = heldParts(body.from);
  const sold = from?.head === 'voucher' ? evidence.books.where('vouchers', 'number', from.id) : [];
  const kept = keptOf(sold, body.amount);
  const isKept = heldParts(body.to)?.head === 'voucher' || kept === null;
  if (!isKept || !isSameTax(body.kept, kept))
    return { code: 'sale/kept', found: body.kept?.amount ?? 0, wanted: kept?.amount ?? 0 };
  return targetFault(body.to, evidence);
}

const isSameTax = (a: KeptTax | undefined, b: KeptTax | null): boolean =>
  a === undefined || b === null
    ? a === undefined && b === null
    : a.id === b.id && a.rate === b.rate && a.amount === b.amount;

/** What vouchers for goods of one tax paid of a sale was for such goods, and lowers their tax as it should. */
export function loweredByVouchers(
  { lines, total, taxes, payments }: EntryOf<'sale.rung'>['body'],
  { books }: Evidence,
): Doubt | null {
  const parts = payments.flatMap((id) => books.row('payments', id) ?? []);
  if (parts.every(({ held }) => held?.lowers === undefined)) return null;
  for (const [at, { clears, held }] of parts.entries()) {
    const lowers = held?.lowers;
    if (lowers === undefined) continue;
    const sale = { lines, total, taxes, before: parts.slice(0, at) };
    const most = payableFor(lowers.id, sale);
    if (clears > most) return { code: 'sale/promotions', found: clears, wanted: most };
    const wanted = lowersFor(lowers, clears, sale);
    // A part that was given back may have shifted one minor unit.
    const isNear = (['amount', 'base'] as const).every(
      (figure) => Math.abs(wanted[figure] - lowers[figure]) <= 1,
    );
    const rate = taxes.find(({ id }) => id === lowers.id)?.rate;
    if (!isNear || rate !== lowers.rate)
      return { code: 'sale/lowered', found: lowers.amount, wanted: wanted.amount };
  }
  return null;
}

/** Money that is given back goes on an account by a way that does so; on credit, a customer's whom there is. */
export function givenOnAccount(
  way: string,
  account: string | undefined,
  stamp: string,
  { history, books }: Evidence,
): Doubt | null {
  const methods = way === 'cash' ? [] : history.inForce('way.set', way, stamp);
  const isOn = account !== undefined;
  if (!isOn) {
    const isHeld = methods.length > 0 && methods.every(({ method }) => isHeldMethod(method));
    return isHeld ? { code: 'return/account', found: way } : null;
  }
  const { head = '', id = '' } = heldParts(account) ?? {};
  // Nothing comes back on a deposit: what it paid for was handed over.
  const isThere = head === 'voucher' || (head !== 'deposit' && history.knows('customer.set', id));
  // On one for goods of one tax only what it had paid goes back, with its tax.
  const sold = head === 'voucher' ? books.where('vouchers', 'number', id) : [];
  if (purposeOf(sold) !== null) return { code: 'return/account', found: account };
  const who =
    head === 'voucher' ? { customer: null, reference: id } : { customer: id, reference: '' };
  return isThere && methods.some(({ method }) => accountFor(method, who) === account)
    ? null
    : { code: 'return/account', found: account };
}

/** Whatever takes from what is kept for somebody takes no more than there is: two devices may each have known of it. */
export function overspent(postings: readonly Posting[], { books, joined }: Evidence): Doubt | null {
  const balances = new Map(books.rows('heldSums').map(({ account, amount }) => [account, amount]));
  const found = overspends(postings, balances, joined);
  return found === null ? null : { code: 'held/overspent', found: found.taken, wanted: found.left };
}
