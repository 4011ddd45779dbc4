/** Reads a bank's file apart from the screen: a large one takes a while, and a bad one longer. */
import * as Comlink from 'comlink';
import Papa from 'papaparse';
import { formatOf, readStatements, type BankFormat } from '../../core/bank/read-file';
import type { ReadStatements } from '../../core/bank/statement';
import { bankTable, type BankTable } from '../../core/formats/bank-table';

export type BankFileRead =
  | { readonly format: Exclude<BankFormat, 'CSV'>; readonly read: ReadStatements }
  /** Somebody has to say what its columns are. */
  | { readonly format: 'CSV'; readonly table: BankTable };

const api = {
  read(text: string): BankFileRead {
    const format = formatOf(text);
    if (format !== 'CSV') return { format, read: readStatements(text, format) };
    const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
      skipEmptyLines: 'greedy',
    });
    return { format, table: bankTable(data) };
  },
};
export type BankWorker = typeof api;

Comlink.expose(api);
