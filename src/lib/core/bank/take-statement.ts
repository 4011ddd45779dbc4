/** A statement on its way into the books: what is new of it, and whether it may be taken at all. */
import { z } from 'zod';
import type { Draft } from '../daybook/chain';
import { bytesOf, LARGEST_ENTRY } from '../daybook/entry-size';
import { draft, type BodyOf } from '../daybook/kinds';
import { bankLineId } from '../books/changes/bank';
import { accountNumber, statementFaults, type Statement, type StatementLine } from './statement';

export interface BankAccount {
  readonly id: string;
  readonly name: string;
  readonly number: string;
}

/** How a statement of a file fits what is there. */
export interface StatementLook {
  readonly statement: Statement;
  /** The account that it is of; null where none is set up. */
  readonly account: BankAccount | null;
  readonly fresh: readonly StatementLine[];
  /** There already: they are taken once. */
  readonly known: number;
  /** Lines of a day and amount that another file brought under another name; somebody has to look. */
  readonly alike: readonly { readonly line: StatementLine; readonly source: string }[];
  readonly faults: readonly string[];
}

/** What is there of an account; the amount in minor units. */
const knownLineSchema = z
  .object({
    id: z.string(),
    account: z.string(),
    day: z.iso.date(),
    amount: z.int(),
    source: z.string(),
  })
  .readonly();
export type KnownLine = z.infer<typeof knownLineSchema>;

/** What the server answers; both sides go by it. */
export const knownLinesSchema = z.object({ lines: z.array(knownLineSchema).readonly() });

/** The last figures of a number, where the file and the set-up do not have the same form of it. */
const SHORTEST_TAIL = 6;

export function accountOf(number: string, accounts: readonly BankAccount[]): BankAccount | null {
  if (number === '') return null;
  const same = accounts.find((account) => account.number === number);
  if (same !== undefined) return same;
  // An IBAN ends with the bank's own number of the account.
  const tails = accounts.filter(
    (account) =>
      Math.min(account.number.length, number.length) >= SHORTEST_TAIL &&
      (account.number.endsWith(number) || number.endsWith(account.number)),
  );
  const [only] = tails;
  return only !== undefined && tails.length === 1 ? only : null;
}

/**
 * @param chosen The account that somebody says it is of, where the file says none.
 * @param known Lines of all accounts.
 */
export function lookAt(
  statement: Statement,
  {
    business,
    currency,
    accounts,
    chosen,
    known,
  }: {
    readonly business: string;
    readonly currency: string;
    readonly accounts: readonly BankAccount[];
    readonly chosen: BankAccount | null;
    readonly known: readonly KnownLine[];
  },
): StatementLook {
  const account = statement.account === '' ? chosen : accountOf(statement.account, accounts);
  const faults = [...statementFaults(statement, currency)];
  if (account === null)
    faults.push(
      statement.account === ''
        ? 'The file does not say which account it is of: choose one.'
        : `It is of the account ${statement.account}, which is not set up. Set it up first, if it is yours.`,
    );
  if (statement.account !== '' && chosen !== null && account !== null && account.id !== chosen.id)
    faults.push(
      `It is of the account ${account.name} (${statement.account}), not of ${chosen.name}: choose that one, or another file.`,
    );
  if (account === null) return { statement, account, fresh: [], known: 0, alike: [], faults };
  const here = new Map(
    known.flatMap((line) => (line.account === account.id ? [[line.id, line] as const] : [])),
  );
  const ids = new Set(statement.lines.map(({ id }) => bankLineId(business, account.id, id)));
  // Each of those that are there under another name stands for one line of this file.
  const others = [...here.values()].filter(({ id }) => !ids.has(id));
  const fresh = statement.lines.filter(({ id }) => !here.has(bankLineId(business, account.id, id)));
  const alike = fresh.flatMap((line) => {
    const at = others.findIndex((each) => each.day === line.day && each.amount === line.amount);
    if (at === -1) return [];
    const [like] = others.splice(at, 1);
    return [{ line, source: like?.source ?? '' }];
  });
  return {
    statement,
    account,
    fresh,
    known: statement.lines.length - fresh.length,
    alike,
    faults,
  };
}

/** As many lines, and bytes of them, as one entry may have within its size. */
const MOST_LINES = 80;
const MOST_BYTES = LARGEST_ENTRY * 0.7;

export function takeStatement(
  newId: () => string,
  account: string,
  file: string,
  lines: readonly StatementLine[],
): readonly Draft[] {
  const source = file.trim().slice(0, 60);
  const batches: StatementLine[][] = [];
  let bytes = 0;
  for (const line of lines) {
    const last = batches.at(-1);
    const more = bytesOf(line);
    if (last === undefined || last.length === MOST_LINES || bytes + more > MOST_BYTES) {
      batches.push([line]);
      bytes = more;
    } else {
      last.push(line);
      bytes += more;
    }
  }
  return batches.map((batch) => {
    const body: BodyOf<'bank.stated'> = {
      account,
      source: source === '' ? 'a file' : source,
      lines: batch,
    };
    return draft('bank.stated', newId(), null, body);
  });
}

export type AccountRefusal =
  | { readonly code: 'bank/no-name' }
  | { readonly code: 'bank/no-number'; readonly typed: string }
  | { readonly code: 'bank/number-taken'; readonly name: string };

/** @param id Null for a new one. */
export function setBankAccount(
  newId: () => string,
  {
    id,
    typedName,
    typedNumber,
    columns,
    isActive,
    accounts,
  }: {
    readonly id: string | null;
    readonly typedName: string;
    readonly typedNumber: string;
    readonly columns: BodyOf<'bank.set'>['columns'];
    readonly isActive: boolean;
    readonly accounts: readonly BankAccount[];
  },
):
  | { readonly ok: true; readonly id: string; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: AccountRefusal } {
  const name = typedName.trim().slice(0, 80);
  const number = accountNumber(typedNumber);
  if (name === '') return { ok: false, refusal: { code: 'bank/no-name' } };
  if (number.length < 4 || number.length > 34)
    return { ok: false, refusal: { code: 'bank/no-number', typed: typedNumber } };
  const same = accounts.find((each) => each.number === number && each.id !== id);
  if (same !== undefined)
    return { ok: false, refusal: { code: 'bank/number-taken', name: same.name } };
  const own = id ?? newId();
  const body = { id: own, name, number, columns, isActive };
  return { ok: true, id: own, drafts: [draft('bank.set', newId(), null, body)] };
}
