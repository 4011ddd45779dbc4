/** A list as a CSV file: what it shows, in its order, figures as they are counted. */
import { guarded } from '../../core/formats/csv-cell';
import type { Column } from '../../core/list/list-view';
import { saveCsv } from '../files/save-csv';

/** What begins like a formula is made text. */
export function saveList<R>(name: string, rows: readonly R[], columns: readonly Column<R>[]): void {
  const cell = (value: string | number | null): string | number =>
    typeof value === 'string' ? guarded(value) : (value ?? '');
  saveCsv(name, [
    columns.map(({ head }) => guarded(head)),
    ...rows.map((row) => columns.map(({ value }) => cell(value(row)))),
  ]);
}
