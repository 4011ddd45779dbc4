/** A CSV file (RFC 4180) to keep: UTF-8, lines ending in CRLF. */
import Papa from 'papaparse';
import { saveFile } from './save-file';

/** @param columns In their order; as they stand in the rows where they are not given. */
export function saveCsv(
  name: string,
  rows: readonly object[] | readonly (readonly unknown[])[],
  columns?: readonly string[],
): void {
  const text = Papa.unparse([...rows] as object[], {
    newline: '\r\n',
    ...(columns === undefined ? {} : { columns: [...columns] }),
  });
  saveFile(`${name}.csv`, 'text/csv;charset=utf-8', `${text}\r\n`);
}
