/** What a long list shows: the rows that fit what was typed, in the order that was chosen. */
import { folded, wordsIn } from '../entry-line/words';

/** One column; its values are what is sorted by, found by and exported. */
export interface Column<R> {
  readonly key: string;
  readonly head: string;
  /** Figures stand to the right, and the largest come first. */
  readonly is: 'text' | 'figure';
  /** Null where there is none; such rows come last, whichever way. */
  readonly value: (row: R) => string | number | null;
  /** As people read it; the value itself where it is missing. */
  readonly show?: (row: R) => string;
}

export interface Order {
  readonly column: string;
  readonly isDown: boolean;
}

/** The order that a tap on a column's head asks for: the usual way first, then the other. */
export function nextOrder<R>(now: Order, { key, is }: Column<R>): Order {
  if (now.column === key) return { column: key, isDown: !now.isDown };
  return { column: key, isDown: is === 'figure' };
}

/**
 * Rows on whose texts every word typed stands, capitals and accents making no difference; sorted by a column,
 * those that are the same in the order in which they came.
 */
export function viewOf<R>(
  rows: readonly R[],
  columns: readonly Column<R>[],
  typed: string,
  { column, isDown }: Order,
): readonly R[] {
  const words = wordsIn(typed);
  const texts = columns.filter(({ is }) => is === 'text');
  const fits = (row: R): boolean => {
    const all = folded(texts.map(({ value }) => String(value(row) ?? '')).join(' '));
    return words.every((word) => all.includes(word));
  };
  const found = words.length === 0 ? [...rows] : rows.filter(fits);
  const by = columns.find(({ key }) => key === column);
  if (by === undefined) return found;
  // Worked out once a row: comparing asks for each many times.
  const keyed = found.map((row) => ({ row, value: sortable(by.value(row)) }));
  const turn = isDown ? -1 : 1;
  keyed.sort((a, b) => {
    if (a.value === null || b.value === null)
      return Number(a.value === null) - Number(b.value === null);
    return a.value < b.value ? -turn : a.value > b.value ? turn : 0;
  });
  return keyed.map(({ row }) => row);
}

const sortable = (value: string | number | null): string | number | null =>
  typeof value === 'string' ? folded(value) : value;
