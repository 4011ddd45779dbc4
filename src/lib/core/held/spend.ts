/** What can be taken from an account that somebody holds, as far as the books here know, and why not. Minor units. */
import type { Row } from '../books/tables';
import { headOfAccount, headOfMethod, type HeldAccount, type HeldHead } from './held-account';
import { numberFault, voucherNumber } from './voucher-number';

/** What is known of one account; of a voucher, what was said of it. */
export interface HeldFacts {
  /** As it stands: credits, what is owed to whoever holds it, are below nothing. */
  readonly balance: number;
  /** Each time that a voucher of this number was sold or made. */
  readonly sold: readonly Pick<Row<'vouchers'>, 'until' | 'value' | 'kept'>[];
  readonly state:
    | Pick<Row<'voucherStates'>, 'isBlocked' | 'until' | 'reason' | 'setStamp'>
    | undefined;
  /** What the customer may owe; null for any amount. */
  readonly creditLimit: number | null;
}

export type HeldRefusal =
  | { readonly code: 'held/no-customer' }
  /** Only what is handed over of an order is paid from its deposit. */
  | { readonly code: 'held/no-order' }
  | { readonly code: 'held/no-number' }
  | { readonly code: 'held/mistyped'; readonly number: string }
  | { readonly code: 'held/other-business'; readonly number: string }
  | { readonly code: 'held/unknown'; readonly number: string }
  | { readonly code: 'held/blocked'; readonly number: string; readonly reason: string }
  | { readonly code: 'held/out-of-date'; readonly number: string; readonly until: string }
  /** Nothing is left on it. */
  | { readonly code: 'held/used-up'; readonly of: HeldHead }
  | { readonly code: 'held/less'; readonly left: number }
  /** It is for goods of another tax than any here. */
  | { readonly code: 'held/other-goods'; readonly name: string }
  /** Of what is left to pay only so much is for goods that it is for. */
  | { readonly code: 'held/goods-less'; readonly left: number }
  /** With no network others may spend it meanwhile: no more than was set up. */
  | { readonly code: 'held/offline-most'; readonly most: number }
  /** Tips are given in money. */
  | { readonly code: 'held/no-tip' }
  /** More would be owed than was agreed. */
  | { readonly code: 'held/over-limit'; readonly limit: number; readonly owes: number };

export interface Spender {
  readonly customer: string | null;
  /** A voucher's number, as it was typed or scanned. */
  readonly reference: string;
  /** The order that is handed over, and whose it is. */
  readonly order?: { readonly id: string; readonly customer: string } | undefined;
}

/** The account that a way pays from; null where it is not said whose. */
export function accountFor(
  method: string,
  { customer, reference, order }: Spender,
): HeldAccount | null {
  const head = headOfMethod(method);
  if (head === null) return null;
  if (head === 'deposit')
    return order === undefined || order.customer !== customer ? null : `deposit:${order.id}`;
  const id = head === 'voucher' ? voucherNumber(reference) : customer;
  return id === null || id === '' ? null : `${head}:${id}`;
}

/** The last day on which a voucher can be spent; empty for any. */
export const lastDayOf = ({ sold, state }: Pick<HeldFacts, 'sold' | 'state'>): string => {
  if (state !== undefined && state.setStamp !== '') return state.until;
  const days = sold.map(({ until }) => until);
  return days.includes('') ? '' : (days.toSorted().at(-1) ?? '');
};

export type Spendable =
  | {
      readonly ok: true;
      readonly account: HeldAccount;
      /** What can be taken without asking anybody; null for any amount. */
      readonly left: number | null;
    }
  | { readonly ok: false; readonly refusal: HeldRefusal };

/** @param day The local day, ISO 8601. */
export function spendable(
  method: string,
  who: Spender,
  facts: HeldFacts,
  business: string,
  day: string,
): Spendable {
  const account = accountFor(method, who);
  const head = headOfMethod(method) ?? 'voucher';
  if (account === null) return refuse({ code: lacking(head, who) });
  const { balance, creditLimit } = facts;
  if (head === 'customer') {
    const left = creditLimit === null ? null : Math.max(0, creditLimit - balance);
    return { ok: true, account, left };
  }
  const fault =
    head === 'voucher' ? voucherFault(voucherNumber(who.reference), facts, business, day) : null;
  if (fault !== null) return refuse(fault);
  return balance >= 0
    ? refuse({ code: 'held/used-up', of: head })
    : { ok: true, account, left: -balance };
}

const lacking = (
  head: HeldHead,
  { order }: Spender,
): 'held/no-number' | 'held/no-order' | 'held/no-customer' => {
  if (head === 'voucher') return 'held/no-number';
  return head === 'deposit' && order === undefined ? 'held/no-order' : 'held/no-customer';
};

/** What is wrong with a voucher, beside that nothing is left on it. */
export function voucherFault(
  number: string,
  { sold, state, balance }: HeldFacts,
  business: string,
  day: string,
): HeldRefusal | null {
  if (sold.length === 0 && balance === 0) {
    const fault = numberFault(number, business);
    return { code: fault === null ? 'held/unknown' : (`held/${fault}` as const), number };
  }
  if (state?.isBlocked === true) return { code: 'held/blocked', number, reason: state.reason };
  const until = lastDayOf({ sold, state });
  return until !== '' && until < day ? { code: 'held/out-of-date', number, until } : null;
}

/** What is left on an account afterwards, or, where a customer owes it, what they owe. */
export const afterwards = (account: HeldAccount, balance: number, taken: number): number =>
  headOfAccount(account) === 'customer' ? balance + taken : -(balance + taken);

const refuse = (refusal: HeldRefusal): Spendable => ({ ok: false, refusal });
