/** Commands: what a line of a statement is, all of it or a part, and that it is not so after all. Minor units. */
import type { Draft } from '../daybook/chain';
import { draft, type BodyOf } from '../daybook/kinds';
import { moneyCame, paidOut } from '../journal/settling';
import { takeBack } from '../journal/take-back';
import { sum } from '../money/units';
import { readAmount } from '../money/amount-text';
import type { BankLine } from './match-bank';
import type { OpenMoney, OpenPart } from './open-money';

export type BankRefusal =
  | { readonly code: 'bank/amount-wrong'; readonly typed: string }
  | { readonly code: 'bank/more-than-line'; readonly left: number }
  | { readonly code: 'bank/more-than-open'; readonly open: number }
  | { readonly code: 'bank/other-way' }
  | { readonly code: 'bank/no-reason' }
  | { readonly code: 'bank/no-event' };
export type BankOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: BankRefusal };
const refuse = (refusal: BankRefusal): BankOutcome => ({ ok: false, refusal });

export interface JoinBank {
  readonly newId: () => string;
  readonly line: Pick<BankLine, 'id' | 'day' | 'left'>;
  readonly open: OpenMoney;
  /** How much of the line it is, without sign. */
  readonly typed: string;
  readonly currency: string;
  /** Where less came than is open: it was kept on the way, or it is still to come. */
  readonly rest: 'kept' | 'to come';
}

const joined = (
  newId: () => string,
  line: string,
  money: string | null,
  amount: number,
  why = '',
): Draft => draft('bank.joined', newId(), null, { line, money, amount, why });

/** A line is this money: what came is written, if it was not yet, and the line is joined to it. */
export function joinBank(command: JoinBank): BankOutcome {
  const { newId, line, open, typed, currency, rest } = command;
  const read = readAmount(typed, currency);
  if (!read.ok || read.amount === 0) return refuse({ code: 'bank/amount-wrong', typed });
  const sign = Math.sign(line.left);
  if (sign !== Math.sign(open.amount)) return refuse({ code: 'bank/other-way' });
  if (read.amount > Math.abs(line.left))
    return refuse({ code: 'bank/more-than-line', left: Math.abs(line.left) });
  if (read.amount > Math.abs(open.amount))
    return refuse({ code: 'bank/more-than-open', open: Math.abs(open.amount) });
  if (open.money !== null)
    return { ok: true, drafts: [joined(newId, line.id, open.money, sign * read.amount)] };
  const drafts = partsOf(open.parts, read.amount, rest).flatMap((part): Draft[] => {
    const id = newId();
    const amount = sum(part.from.map((each) => each.amount)) - part.fees;
    const body: BodyOf<'money.came'> = {
      day: line.day,
      amount,
      fees: part.fees,
      from: part.from,
      payments: part.payments,
      what: open.what.slice(0, 120),
    };
    return [draft('money.came', id, part.event, body), joined(newId, line.id, id, amount)];
  });
  return { ok: true, drafts };
}

/** What is written of each event where this much came of all of it. */
function partsOf(
  parts: readonly OpenPart[],
  amount: number,
  rest: JoinBank['rest'],
): readonly OpenPart[] {
  const net = (part: OpenPart): number => sum(part.from.map((each) => each.amount)) - part.fees;
  let short = sum(parts.map(net)) - amount;
  if (short === 0) return parts;
  // Something came of each, or it is still to come.
  if (rest === 'kept' && amount >= parts.length)
    // From the last backwards: what did not come of each was kept.
    return [...parts]
      .reverse()
      .flatMap((part): OpenPart[] => {
        const less = Math.min(short, net(part) - 1);
        short -= less;
        return [{ ...part, fees: part.fees + less }];
      })
      .reverse();
  let left = amount;
  return parts.flatMap((part): OpenPart[] => {
    const own = net(part);
    if (left >= own) {
      left -= own;
      return [part];
    }
    if (left === 0) return [];
    let still = left;
    left = 0;
    // What was kept of it comes off what comes last.
    const from = part.from.flatMap((each) => {
      const some = Math.min(still, each.amount);
      still -= some;
      return some > 0 ? [{ ...each, amount: some }] : [];
    });
    return [{ ...part, from, fees: 0, payments: [] }];
  });
}

export interface PayByLine {
  readonly newId: () => string;
  readonly line: Pick<BankLine, 'id' | 'left'>;
  readonly event: string;
  readonly for: 'pitch' | 'cost';
  readonly typed: string;
  readonly currency: string;
  readonly what: string;
}

/** What went from the bank was a cost of an event. */
export function payByLine(command: PayByLine): BankOutcome {
  const { newId, line, event, typed, currency } = command;
  if (event === '') return refuse({ code: 'bank/no-event' });
  const read = readAmount(typed, currency);
  if (!read.ok || read.amount === 0) return refuse({ code: 'bank/amount-wrong', typed });
  if (line.left > 0) return refuse({ code: 'bank/other-way' });
  if (read.amount > Math.abs(line.left))
    return refuse({ code: 'bank/more-than-line', left: Math.abs(line.left) });
  const id = newId();
  const body: BodyOf<'paid.out'> = {
    for: command.for,
    whom: null,
    amount: read.amount,
    from: 'bank',
    what: command.what.trim().slice(0, 120),
  };
  const paid = draft('paid.out', id, event, body);
  return { ok: true, drafts: [paid, joined(newId, line.id, id, 0 - read.amount)] };
}

/** What is left of a line has nothing to do with the events. */
export function noneOfOurs(
  newId: () => string,
  line: Pick<BankLine, 'id' | 'left'>,
  before: number,
  typed: string,
): BankOutcome {
  const why = typed.trim().slice(0, 500);
  if (why === '') return refuse({ code: 'bank/no-reason' });
  // Said again, it is all that was said to be none of ours.
  return { ok: true, drafts: [joined(newId, line.id, null, before + line.left, why)] };
}

/** Money that was written, as rows of the books have it. */
export type WrittenMoney =
  | ({ readonly is: 'came' } & Pick<BodyOf<'money.came'>, 'amount' | 'fees' | 'from'> & {
        readonly id: string;
        readonly event: string | null;
      })
  | ({ readonly is: 'paid' } & Pick<BodyOf<'paid.out'>, 'for' | 'whom' | 'amount'> & {
        readonly id: string;
        readonly event: string | null;
        readonly from: string;
      });

/** What came or was paid was not so: its postings are taken back. */
export function undoMoney(newId: () => string, money: WrittenMoney, typed: string): BankOutcome {
  const why = typed.trim().slice(0, 500);
  if (why === '') return refuse({ code: 'bank/no-reason' });
  const postings = money.is === 'came' ? moneyCame({ body: money }) : paidOut({ body: money });
  const takes = takeBack(money.id, postings);
  const body = { takes: { of: takes.of, postings: [...takes.postings] }, why };
  return { ok: true, drafts: [draft('money.undone', newId(), money.event, body)] };
}

/** A line and a sum are taken apart, and the sum taken back with it where it came of this line alone. */
export function takeApart(
  newId: () => string,
  line: string,
  money: WrittenMoney | null,
  isTakenBack: boolean,
): BankOutcome {
  const apart = joined(newId, line, money?.id ?? null, 0);
  if (money === null || !isTakenBack) return { ok: true, drafts: [apart] };
  const undone = undoMoney(newId, money, 'the line of the statement is something else');
  return undone.ok ? { ok: true, drafts: [apart, ...undone.drafts] } : undone;
}
