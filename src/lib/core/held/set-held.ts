/** What is said of vouchers and moved between accounts: commands. Minor units. */
import { draft } from '../daybook/kinds';
import type { Draft } from '../daybook/chain';
import { isDate } from '../event/event-days';
import { headOfAccount, type HeldAccount } from './held-account';
import { keptOf, type KeptTax } from './one-purpose';
import { lastDayOf, type HeldFacts } from './spend';
import type { VoucherRow } from './voucher-list';

export type SetHeldRefusal =
  | { readonly code: 'held/no-reason' }
  | { readonly code: 'held/day-wrong'; readonly typed: string }
  /** It can still be spent. */
  | { readonly code: 'held/not-over'; readonly until: string }
  | { readonly code: 'held/nothing-there' }
  | { readonly code: 'held/less-there'; readonly left: number };

export type SetHeldOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: SetHeldRefusal };

export interface SetVoucher {
  readonly newId: () => string;
  readonly number: string;
  readonly isBlocked: boolean;
  /** ISO 8601; empty for any day. */
  readonly until: string;
  readonly reason: string;
}

/** Blocks a voucher, lets it be spent again, or lets it last until another day. */
export function setVoucher({
  newId,
  number,
  isBlocked,
  until,
  reason,
}: SetVoucher): SetHeldOutcome {
  const why = reason.trim().slice(0, 200);
  if (why === '') return refuse({ code: 'held/no-reason' });
  if (until !== '' && !isDate(until)) return refuse({ code: 'held/day-wrong', typed: until });
  const body = { number, isBlocked, until, reason: why };
  return { ok: true, drafts: [draft('voucher.set', newId(), null, body)] };
}

export interface ReplaceVoucher {
  readonly newId: () => string;
  readonly number: string;
  /** Of the one that is made in its place. */
  readonly fresh: string;
  readonly facts: HeldFacts;
  readonly reason: string;
}

/** What is left on a voucher goes on a fresh one, and it can be spent no more. */
export function replaceVoucher({
  newId,
  number,
  fresh,
  facts,
  reason,
}: ReplaceVoucher): SetHeldOutcome {
  const until = lastDayOf(facts);
  const [from, to] = [`voucher:${number}`, `voucher:${fresh}`] as const;
  const kept = keptOf(facts.sold, Math.max(0, 0 - facts.balance));
  const moved = moveHeld({
    ...{ newId, from, to, balance: facts.balance, amount: null, until, reason },
    kept,
  });
  if (!moved.ok) return moved;
  const set = setVoucher({ newId, number, isBlocked: true, until, reason });
  return set.ok ? { ok: true, drafts: [...moved.drafts, ...set.drafts] } : set;
}

/**
 * What is left on vouchers that ran out is owed no more.
 * @param today The local day, ISO 8601.
 */
export function lapseVouchers(
  newId: () => string,
  vouchers: readonly Pick<VoucherRow, 'number' | 'until' | 'left' | 'kept'>[],
  today: string,
): SetHeldOutcome {
  const [early] = vouchers.filter(({ until }) => until === '' || until >= today);
  if (early !== undefined) return refuse({ code: 'held/not-over', until: early.until });
  const drafts = vouchers
    .filter(({ left }) => left > 0)
    .map(({ number, left, kept }) => {
      const body = { number, amount: left, ...(kept === null ? {} : { kept }) };
      return draft('voucher.lapsed', newId(), null, body);
    });
  return drafts.length === 0 ? refuse({ code: 'held/nothing-there' }) : { ok: true, drafts };
}

export interface MoveHeld {
  readonly newId: () => string;
  readonly from: HeldAccount;
  readonly to: HeldAccount;
  /** What stands on the first: what is owed on it is below nothing. */
  readonly balance: number;
  /** Null for all of it. */
  readonly amount: number | null;
  /** Of a voucher that is made by it. */
  readonly until?: string;
  /** Of a voucher that is made in the place of one for goods of one tax: that tax of it. */
  readonly kept?: KeptTax | null;
  readonly reason: string;
}

/** Moves what is owed on one account to another; no money comes or goes. */
export function moveHeld(command: MoveHeld): SetHeldOutcome {
  const { newId, from, to, balance, until = '', kept = null } = command;
  const reason = command.reason.trim().slice(0, 200);
  if (reason === '') return refuse({ code: 'held/no-reason' });
  const amount = command.amount ?? -balance;
  if (balance >= 0 || amount <= 0) return refuse({ code: 'held/nothing-there' });
  if (amount > -balance) return refuse({ code: 'held/less-there', left: -balance });
  const body = {
    ...{ from, to, amount, until: headOfAccount(to) === 'voucher' ? until : '', reason },
    ...(kept === null ? {} : { kept }),
  };
  return { ok: true, drafts: [draft('held.moved', newId(), null, body)] };
}

/**
 * What a customer pays in, as lines of a slip: what they owe first, and what is more becomes their credit.
 * @param owes As it stands on their account.
 */
export function paidInFor(
  customer: string,
  amount: number,
  owes: number,
): readonly { readonly account: HeldAccount; readonly amount: number }[] {
  const off = Math.min(amount, Math.max(0, owes));
  return [
    ...(off > 0 ? [{ account: `customer:${customer}` as const, amount: off }] : []),
    ...(amount > off ? [{ account: `credit:${customer}` as const, amount: amount - off }] : []),
  ];
}

const refuse = (refusal: SetHeldRefusal): SetHeldOutcome => ({ ok: false, refusal });
