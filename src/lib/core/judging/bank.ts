/** Banks: lines are of accounts that there are, money is joined and taken back once. */
import type { EntryOf } from '../daybook/kinds';
import { moneyCame, paidOut } from '../journal/settling';
import { netOf } from '../journal/take-back';
import type { Posting } from '../journal/posting';
import { sum } from '../money/units';
import { bankJoinId } from '../books/changes/bank';
import type { Evidence } from './evidence';
import type { Doubt } from './verdict';

export const judgeStated = ({ body }: EntryOf<'bank.stated'>, { books }: Evidence): Doubt | null =>
  books.row('bankAccounts', body.account) === undefined
    ? { code: 'bank/account', found: body.account }
    : null;

interface Money {
  /** What stands at the bank of it, minor units; below nothing for what was paid. */
  readonly amount: number;
  readonly event: string | null;
  readonly postings: readonly Posting[];
}

/** What came or was paid under this id, and has not been taken back. */
function moneyOf({ books }: Evidence, id: string): Money | Doubt {
  if (books.rows('moneyUndone').some(({ money }) => money === id)) return { code: 'money/again' };
  const came = books.row('moneyCame', id);
  if (came !== undefined)
    return { amount: came.amount, event: came.event, postings: moneyCame({ body: came }) };
  const paid = books.row('paidOut', id);
  if (paid !== undefined)
    return {
      amount: paid.from === 'bank' ? 0 - paid.amount : 0,
      event: paid.event,
      postings: paidOut({ body: paid }),
    };
  return { code: 'money/unknown', found: id };
}

/** A sum is joined once: with all lines that it is said to be, it is no more than itself. */
export function judgeJoined(
  { business, body }: EntryOf<'bank.joined'>,
  evidence: Evidence,
): Doubt | null {
  const { line, money, amount } = body;
  if (evidence.books.row('bankLines', line) === undefined)
    return { code: 'bank/line', found: line };
  // Taking apart is always possible, also what has been taken back since.
  if (money === null || amount === 0) return null;
  const of = moneyOf(evidence, money);
  if ('code' in of) return of;
  const here = bankJoinId(business, line, money);
  const before = sum(
    evidence.books
      .rows('bankJoins')
      .flatMap((join) => (join.money === money && join.id !== here ? join.amount : [])),
  );
  const inAll = before + amount;
  const isWithin =
    Math.sign(amount) === Math.sign(of.amount) && Math.abs(inAll) <= Math.abs(of.amount);
  return isWithin ? null : { code: 'bank/more', found: inAll, wanted: of.amount };
}

/** All of it, of the same event, and once. */
export function judgeUndone(
  { event, body }: EntryOf<'money.undone'>,
  evidence: Evidence,
): Doubt | null {
  const { of: id, postings } = body.takes;
  const of = moneyOf(evidence, id);
  if ('code' in of) return of;
  const isAll = of.event === event && netOf([...of.postings, ...postings]).size === 0;
  return isAll ? null : { code: 'money/figures', found: id };
}

/** A way that there is; nothing is handed in twice, nor anything else under the same paying-in slip. */
export function judgeHandedIn(
  { event, body }: EntryOf<'handed.in'>,
  { books, history }: Evidence,
): Doubt | null {
  const { way, what, payments } = body;
  if (!history.knows('way.set', way)) return { code: 'handed/way', found: way };
  const before = books
    .rows('handedIn')
    .filter((each) => each.event === event && each.way === way)
    .find((each) => each.what === what || each.payments.some((id) => payments.includes(id)));
  return before === undefined ? null : { code: 'handed/again', found: what };
}
