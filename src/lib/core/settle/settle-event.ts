/** Commands of settling: sharing tips, paying people, money that came, and that an event is settled. */
import { NOBODY } from '../books/names';
import type { Draft } from '../daybook/chain';
import { digestOf } from '../daybook/digest';
import { draft, type BodyOf } from '../daybook/kinds';
import { readAmount } from '../money/amount-text';
import type { MakerSettled } from './people';
import { NobodyOnDutyError, shareTips, type TipShare } from './share-tips';
import type { Settling } from './settling';

export type SettleEventRefusal =
  | { readonly code: 'settle/loose-ends'; readonly count: number }
  | { readonly code: 'settle/settled' }
  | { readonly code: 'settle/not-sent'; readonly entries: number }
  | { readonly code: 'settle/no-reason' }
  | { readonly code: 'settle/no-slip' }
  | { readonly code: 'settle/no-tips' }
  | { readonly code: 'settle/nobody-on-duty' }
  | { readonly code: 'settle/no-address' }
  | { readonly code: 'settle/amount-wrong'; readonly typed: string }
  | { readonly code: 'settle/more-than-owed'; readonly owed: number };
export type SettleEventOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: SettleEventRefusal };
const refuse = (refusal: SettleEventRefusal): SettleEventOutcome => ({ ok: false, refusal });

export interface SettleEvent {
  readonly newId: () => string;
  readonly event: string;
  /** As the server has just worked it out. */
  readonly settling: Pick<
    Settling,
    'ends' | 'accepted' | 'balances' | 'heads' | 'leftOut' | 'settled'
  >;
  /** What this device has not sent: it would come after. */
  readonly toSend: number;
  /** Whether it was settled before, and has changed since. */
  readonly isAddendum: boolean;
}

/** The event is settled with what stood on its accounts, once nothing of it is loose. */
export function settleEvent(command: SettleEvent): SettleEventOutcome {
  const { newId, event, settling, toSend, isAddendum } = command;
  const { ends, accepted, balances, heads, leftOut } = settling;
  if (toSend > 0) return refuse({ code: 'settle/not-sent', entries: toSend });
  // What has come since it was settled is what an addendum is for.
  const open = ends.filter(({ code }) => !(isAddendum && code === 'settled/changed'));
  if (open.length > 0) return refuse({ code: 'settle/loose-ends', count: open.length });
  if (settling.settled !== null && !isAddendum) return refuse({ code: 'settle/settled' });
  const facts = { event, balances, heads, leftOut };
  const body: BodyOf<'event.settled'> = {
    ...facts,
    accepted: [...accepted],
    isAddendum,
    digest: digestOf(facts),
  };
  return { ok: true, drafts: [draft('event.settled', newId(), event, body)] };
}

/**
 * Joins a line of a report to a payment by hand; said once more, the last word counts.
 * @param payment Null where it is none of ours.
 */
export function joinLine(
  newId: () => string,
  line: string,
  payment: string | null,
  typed: string,
): SettleEventOutcome {
  const why = typed.trim().slice(0, 500);
  if (why === '') return refuse({ code: 'settle/no-reason' });
  return { ok: true, drafts: [draft('cards.joined', newId(), null, { line, payment, why })] };
}

export interface ShareOutTips {
  readonly newId: () => string;
  readonly event: string;
  readonly how: TipShare;
  readonly settling: Pick<Settling, 'tips' | 'minutes'>;
}

/** Who gets what of the tips, as it would be written. */
export function tipShares(
  how: TipShare,
  { tips, minutes }: Pick<Settling, 'tips' | 'minutes'>,
): readonly { readonly person: string; readonly amount: number }[] {
  const total = tips.open.reduce((sum, { amount }) => sum + amount, 0);
  const taken = new Map(tips.open.map(({ seller, amount }) => [seller, amount]));
  const named = [...taken.keys()].filter((seller) => seller !== NOBODY);
  const people = [...new Set([...minutes.map(({ person }) => person), ...named])].sort();
  const weightOf = (person: string): number =>
    how === 'hours'
      ? (minutes.find((each) => each.person === person)?.minutes ?? 0)
      : (taken.get(person) ?? 0);
  const shares = shareTips(how, total, people.map(weightOf));
  return people
    .map((person, at) => ({ person, amount: shares[at] ?? 0 }))
    .filter(({ amount }) => amount > 0);
}

export function shareOutTips({ newId, event, how, settling }: ShareOutTips): SettleEventOutcome {
  const { open } = settling.tips;
  if (open.length === 0) return refuse({ code: 'settle/no-tips' });
  try {
    const shares = [...tipShares(how, settling)];
    const body = { how, taken: [...open], shares };
    return { ok: true, drafts: [draft('tips.shared', newId(), event, body)] };
  } catch (error) {
    if (error instanceof NobodyOnDutyError) return refuse({ code: 'settle/nobody-on-duty' });
    throw error;
  }
}

export interface PayOut {
  readonly newId: () => string;
  readonly event: string;
  readonly for: BodyOf<'paid.out'>['for'];
  readonly whom: string | null;
  readonly typed: string;
  readonly from: BodyOf<'paid.out'>['from'];
  readonly what: string;
  readonly currency: string;
  /** What is owed, minor units; null where nothing says how much. */
  readonly owed: number | null;
}

export function payOut(command: PayOut): SettleEventOutcome {
  const { newId, event, for: what, whom, typed, from, currency, owed } = command;
  const read = readAmount(typed, currency);
  if (!read.ok || read.amount === 0) return refuse({ code: 'settle/amount-wrong', typed });
  if (owed !== null && read.amount > owed) return refuse({ code: 'settle/more-than-owed', owed });
  const body = {
    for: what,
    whom,
    amount: read.amount,
    from,
    what: command.what.trim().slice(0, 120),
  };
  return { ok: true, drafts: [draft('paid.out', newId(), event, body)] };
}

/** Has a maker's statement mailed by the server. @param email Where to, as it is known now. */
export function mailStatement(
  newId: () => string,
  event: string,
  { maker, mailed }: Pick<MakerSettled, 'maker' | 'mailed'>,
  email: string,
): SettleEventOutcome {
  if (email === '') return refuse({ code: 'settle/no-address' });
  const body = { event, maker, before: mailed };
  return { ok: true, drafts: [draft('maker.mailed', newId(), event, body)] };
}

export interface MoneyCame {
  readonly newId: () => string;
  readonly event: string;
  /** What it was owed by, and how much of that has come with its fees. */
  readonly from: BodyOf<'money.came'>['from'];
  readonly typed: string;
  readonly currency: string;
  readonly day: string;
  readonly what: string;
  /** Payments that it is the money of, where each is known. */
  readonly payments?: readonly string[];
}

/** What a payout would come of: each way with what it has of it, no more than is still to come by that way. */
export function owedBy(
  { ways }: Settling['cards']['payouts'][number],
  toCome: Settling['toCome'],
): MoneyCame['from'] {
  return ways.flatMap(({ way, amount }) => {
    const open = toCome.find((each) => each.way === way)?.open ?? 0;
    const due = Math.min(open, amount);
    return due > 0 ? [{ account: `owed:${way}`, amount: due }] : [];
  });
}

/** What did not come of what was owed was kept on the way. */
export function moneyCame(command: MoneyCame): SettleEventOutcome {
  const { newId, event, from, typed, currency, day, payments = [] } = command;
  const read = readAmount(typed, currency);
  if (!read.ok || read.amount === 0) return refuse({ code: 'settle/amount-wrong', typed });
  const owed = from.reduce((sum, { amount }) => sum + amount, 0);
  if (read.amount > owed) return refuse({ code: 'settle/more-than-owed', owed });
  const what = command.what.trim().slice(0, 120);
  const body = {
    ...{ day, amount: read.amount, fees: owed - read.amount, from: [...from] },
    payments: [...payments],
    what,
  };
  return { ok: true, drafts: [draft('money.came', newId(), event, body)] };
}
