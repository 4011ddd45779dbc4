/** The ledger: the vendor's chart of accounts, and what was handed over. Only the server reads them. */
import type { BodyOf } from '../../daybook/kinds';
import type { LedgerBy } from '../../ledger/ledger-by';
import { facts, id, json, records, text, whole, word } from '../table-spec';
import { saidBy } from './said-by';

export const ledgerTables = {
  ledgerCharts: records(
    { set: { accounts: json<BodyOf<'ledger.chart'>['accounts']>([]) } },
    { keep: 'server' },
  ),
  ledgerHanded: facts(
    ['id'],
    {
      id: id(),
      ...saidBy,
      stamp: text(60),
      groupedBy: word<LedgerBy>(10),
      heads: json<BodyOf<'ledger.handed'>['heads']>([]),
      leftOut: json<readonly string[]>([]),
      postings: whole(),
    },
    { indexes: ['event'], keep: 'server' },
  ),
} as const;
