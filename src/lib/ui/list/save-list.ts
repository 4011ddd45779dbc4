/** A list as a CSV file (RFC 4180): what it shows, in its order, figures as they are counted. */
import Papa from 'papaparse';
import { guarded } from '../../core/formats/csv-cell';
import type { Column } from '../../core/list/list-view';
import { saveFile } from '../files/save-file';

/** UTF-8 with CRLF; what begins like a formula is made text. */
export function listCsv<R>(rows: readonly R[], columns: readonly Column<R>[]): string {
  const cell = (value: string | number | null): string | number =>
    typeof value === 'string' ? guarded(value) : (value ?? '');
  const lines = [
    columns.map(({ head }) => guarded(head)),
    ...rows.map((row) => columns.map(({ value }) => cell(value(row)))),
  ];
  return `${Papa.unparse(lines, { newline: '\r\n' })}\r\n`;
}

export const saveList = <R>(
  name: string,
  rows: readonly R[],
  columns: readonly Column<R>[],
): void => saveFile(`${name}.csv`, 'text/csv;charset=utf-8', listCsv(rows, columns));
