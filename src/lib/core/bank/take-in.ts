/** A statement that was looked at is taken in: its lines, and what each of them is without a doubt. */
import type { Draft } from '../daybook/chain';
import { bankLineId } from '../books/changes/bank';
import { typedText } from '../money/amount-text';
import { joinBank } from './join-bank';
import { proposeBank, type BankLine } from './match-bank';
import type { OpenMoney } from './open-money';
import type { StatementLine } from './statement';
import { takeStatement, type StatementLook } from './take-statement';

export interface TakeIn {
  readonly business: string;
  readonly looks: readonly StatementLook[];
  /** Whether lines that are like what is there under another name are taken as well. */
  readonly isAlikeTaken: boolean;
  /** What is still to come, and to go. */
  readonly money: readonly OpenMoney[];
}

/** A line that would be taken, under the name that it will have in the books. */
export interface LineToTake extends BankLine {
  readonly account: string;
  readonly said: StatementLine;
  /** What it is without a doubt; undefined where somebody has to look. */
  readonly is: OpenMoney | undefined;
}

export function linesToTake({ business, looks, isAlikeTaken, money }: TakeIn): LineToTake[] {
  const lines = looks.flatMap(({ account, fresh, alike }) => {
    const left = new Set(isAlikeTaken ? [] : alike.map(({ line }) => line.id));
    return account === null
      ? []
      : fresh
          .filter(({ id }) => !left.has(id))
          .map((said) => ({
            ...said,
            ...{ id: bankLineId(business, account.id, said.id), left: said.amount },
            ...{ account: account.id, said },
          }));
  });
  const certain = new Map(
    proposeBank(lines, money).flatMap(({ line, key, isCertain }) =>
      isCertain ? [[line, money.find((open) => open.key === key)] as const] : [],
    ),
  );
  return lines.map((line) => ({ ...line, is: certain.get(line.id) }));
}

/** @param file What it is called. */
export function takeIn(
  newId: () => string,
  lines: readonly LineToTake[],
  file: string,
  currency: string,
): readonly Draft[] {
  const accounts = [...new Set(lines.map(({ account }) => account))];
  const stated = accounts.flatMap((account) =>
    takeStatement(
      newId,
      account,
      file,
      lines.flatMap((line) => (line.account === account ? line.said : [])),
    ),
  );
  const joined = lines.flatMap((line): readonly Draft[] => {
    if (line.is === undefined) return [];
    const typed = typedText(Math.abs(line.left), currency);
    const made = joinBank({ newId, line, open: line.is, typed, currency, rest: 'to come' });
    return made.ok ? made.drafts : [];
  });
  return [...stated, ...joined];
}
