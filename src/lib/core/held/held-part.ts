/** A part of a payment that is taken from an account: whose, how much, and what is left on it. Minor units. */
import type { BodyOf } from '../daybook/kinds';
import { headOfMethod, type HeldAccount } from './held-account';
import { lowersFor, payableFor, purposeOf, type KeptTax, type PurposeSale } from './one-purpose';
import { afterwards, spendable, type HeldFacts, type HeldRefusal, type Spender } from './spend';

export interface AskHeld extends Spender {
  readonly method: string;
  /** What was asked for; null is all that is left to pay. */
  readonly amount: number | null;
  readonly tip: number;
  /** Still to pay, of the slip or of the share. */
  readonly left: number;
  /** Without them nothing is known of any account. */
  readonly facts: HeldFacts | null | undefined;
  readonly mayOweMore: boolean | undefined;
  /** What is taken at most of what others may spend too, while nobody hears of it; null for any amount. */
  readonly most: number | null;
  readonly business: string | undefined;
  /** What is paid, for vouchers that are for goods of one tax. */
  readonly sale: PurposeSale;
  /** Local, ISO 8601. */
  readonly day: string;
}

export interface HeldPart {
  readonly ok: true;
  readonly account: HeldAccount;
  /** What is taken from it, and what stands on it before. */
  readonly amount: number;
  readonly balance: number;
  readonly isOverLimit: boolean;
  /** By a voucher for goods of one tax: what it lowers that tax by. */
  readonly lowers: KeptTax | null;
}

/**
 * What is taken from an account, and from which; null for a way that is paid with money. With no amount said, what is
 * on it at most; what a customer may not owe is not taken for less in silence.
 */
export function heldPart(
  asked: AskHeld,
): HeldPart | { readonly ok: false; readonly refusal: HeldRefusal } | null {
  const { method, amount, facts: known, mayOweMore = false, business = '', day, tip } = asked;
  if (headOfMethod(method) === null) return null;
  if (tip > 0) return refuse({ code: 'held/no-tip' });
  const facts = known ?? { balance: 0, sold: [], state: undefined, creditLimit: 0 };
  const found = spendable(method, asked, facts, business, day);
  if (!found.ok) return found;
  const { account, left } = found;
  const { balance } = facts;
  const wanted = amount ?? asked.left;
  const purpose = method === 'voucher' ? purposeOf(facts.sold) : null;
  const take = (most: number, isOverLimit = false): HeldPart => ({
    ...{ ok: true, account, amount: most, balance, isOverLimit },
    lowers: purpose === null ? null : lowersFor(purpose, most, asked.sale),
  });
  if (method === 'account') {
    if (left === null || wanted <= left) return take(wanted);
    return mayOweMore
      ? take(wanted, true)
      : refuse({ code: 'held/over-limit', limit: facts.creditLimit ?? 0, owes: balance });
  }
  const there = left ?? 0;
  const goods = purpose === null ? null : payableFor(purpose.id, asked.sale);
  if (purpose !== null && goods === 0)
    return refuse({ code: 'held/other-goods', name: purpose.name });
  if (goods !== null && amount !== null && amount > goods)
    return refuse({ code: 'held/goods-less', left: goods });
  const most = Math.min(there, asked.most ?? there, goods ?? there);
  if (wanted <= most) return take(wanted);
  if (amount === null && most > 0) return take(most);
  return most < there && most < wanted
    ? refuse({ code: 'held/offline-most', most })
    : refuse({ code: 'held/less', left: there });
}

/** As the part says it. @param taken What it was charged. */
export const heldBy = (
  { account, balance, isOverLimit, lowers }: HeldPart,
  taken: number,
): BodyOf<'payment.taken'>['held'] => ({
  account,
  after: afterwards(account, balance, taken),
  isOverLimit,
  ...(lowers === null ? {} : { lowers }),
});

const refuse = (refusal: HeldRefusal): { readonly ok: false; readonly refusal: HeldRefusal } => ({
  ok: false,
  refusal,
});
