/** Lines of statements, with what has been said of each. Minor units. */
import type { Row } from '../books/tables';
import { sum } from '../money/units';
import type { BankLine } from './match-bank';

export interface BankLineNow extends BankLine {
  readonly account: string;
  readonly source: string;
  /** What it was joined to; `money` null for none of the events' money. */
  readonly joins: readonly {
    readonly money: string | null;
    readonly amount: number;
    readonly why: string;
    readonly saidAt: string;
    readonly saidBy: string | null;
  }[];
}

/** @param joins Of these lines. @param undone Money that was taken back: what was joined to it is open again. */
export function bankLinesOf(
  lines: readonly Row<'bankLines'>[],
  joins: readonly Row<'bankJoins'>[],
  undone: ReadonlySet<string>,
): readonly BankLineNow[] {
  const byLine = new Map<string, Row<'bankJoins'>[]>();
  for (const join of joins) {
    if (join.amount === 0 || (join.money !== null && undone.has(join.money))) continue;
    const there = byLine.get(join.line);
    if (there === undefined) byLine.set(join.line, [join]);
    else there.push(join);
  }
  return lines.map((line) => {
    const { id, account, source, day, amount, reference, text, other } = line;
    const own = byLine.get(id) ?? [];
    return {
      ...{ id, account, source, day, amount, reference, text, other },
      left: amount - sum(own.map((join) => join.amount)),
      joins: own.map(({ money, amount: part, why, saidAt, saidBy }) => ({
        ...{ money, amount: part, why, saidAt, saidBy },
      })),
    };
  });
}

/** More was joined to a line than it is: two people said so at once. */
export const isOver = ({ amount, left }: Pick<BankLineNow, 'amount' | 'left'>): boolean =>
  left !== 0 && Math.sign(left) !== Math.sign(amount);
