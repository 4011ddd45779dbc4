/** Banks: accounts, lines of their statements, and what each of those is. Only the server reads them. */
import type { BankColumns } from '../../formats/bank-table';
import { facts, flag, id, json, records, text, textOrNull, whole } from '../table-spec';
import { saidBy } from './said-by';

export const bankTables = {
  bankAccounts: records(
    {
      set: {
        name: text(80),
        number: text(34),
        columns: json<BankColumns | null>(null),
        isActive: flag(),
      },
    },
    { keep: 'server' },
  ),
  /** Their ids are made of the account and of the line's own name. */
  bankLines: records(
    {
      set: {
        account: text(40),
        source: text(60),
        day: text(10),
        amount: whole(),
        reference: text(140),
        text: text(300),
        other: text(140),
      },
    },
    { indexes: ['account', 'day'], keep: 'server' },
  ),
  bankJoins: records(
    {
      set: {
        line: text(40),
        money: textOrNull(40),
        amount: whole(),
        why: text(500),
        saidAt: text(30),
        saidBy: textOrNull(40),
      },
    },
    { indexes: ['line', 'money'], keep: 'server' },
  ),
  /** What came or was paid and was not so after all. */
  moneyUndone: facts(
    ['id'],
    { id: id(), ...saidBy, money: text(40), why: text(500) },
    { indexes: ['money', 'event'], keep: 'server' },
  ),
  handedIn: facts(
    ['id'],
    {
      id: id(),
      ...saidBy,
      way: text(40),
      day: text(10),
      amount: whole(),
      payments: json<readonly string[]>([]),
      what: text(60),
    },
    { indexes: ['event'], keep: 'server' },
  ),
} as const;
