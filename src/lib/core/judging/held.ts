/** Accounts that somebody holds: whose they are, what was agreed, and that nothing is spent twice. Minor units. */
import type { EntryOf } from '../daybook/kinds';
import { heldParts, isHeldMethod } from '../held/held-account';
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
    const sold = books.rows('vouchers').filter((each) => each.number === number);
    const until = lastDayOf({ sold, state });
    // Zones of clocks are a day apart at most.
    const day = new Date(Date.parse(at) - DAY).toISOString().slice(0, 10);
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
export function paidInDoubt(
  lines: EntryOf<'sale.rung'>['body']['lines'],
  evidence: Evidence,
): Doubt | null {
  const seen = new Set<string>();
  for (const { account, price, gross, quantity, name, pays } of lines) {
    if (account === undefined) continue;
    if (gross !== price || quantity !== 1000) return { code: 'sale/line-sum', found: name };
    const fault = seen.has(account)
      ? ({ code: 'sale/paid-in', found: account } as const)
      : (targetFault(account, evidence) ?? debtFault(pays, account, evidence));
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

function targetFault(account: string, { books, history }: Evidence): Doubt | null {
  const { head = '', id = '' } = heldParts(account) ?? {};
  if (head === 'voucher')
    return books.rows('vouchers').some(({ number }) => number === id)
      ? { code: 'sale/voucher-again', found: id }
      : null;
  const isThere =
    head === 'deposit' ? books.row('orders', id) !== undefined : history.knows('customer.set', id);
  return isThere ? null : { code: 'sale/paid-in', found: account };
}

/** A voucher of which something is said is one that there is. */
export function judgeVoucher({ body }: EntryOf<'voucher.set'>, { books }: Evidence): Doubt | null {
  const isThere = books.rows('vouchers').some(({ number }) => number === body.number);
  return isThere ? null : { code: 'voucher/unknown', found: body.number };
}

/** It ran out days ago wherever it is written, and all that is left of it is taken off. */
export function judgeLapsed(
  { at, body }: EntryOf<'voucher.lapsed'>,
  evidence: Evidence,
): Doubt | null {
  const { number, amount } = body;
  const { books } = evidence;
  const sold = books.rows('vouchers').filter((each) => each.number === number);
  if (sold.length === 0) return { code: 'voucher/unknown', found: number };
  const until = lastDayOf({ sold, state: books.row('voucherStates', number) });
  const left = 0 - evidence.standsOn(`voucher:${number}`);
  // Zones of clocks are a day apart at most.
  const isOver = until !== '' && until < new Date(Date.parse(at) + DAY).toISOString().slice(0, 10);
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
  return targetFault(body.to, evidence);
}

/** Money that is given back goes on an account by a way that does so; on credit, a customer's whom there is. */
export function givenOnAccount(
  way: string,
  account: string | undefined,
  stamp: string,
  { history }: Evidence,
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
