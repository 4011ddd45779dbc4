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

/** Rows in the order that they are looked through in, each with the texts that it is found by. */
export type Sorted<R> = readonly { readonly row: R; readonly text: string }[];

/**
 * Sorted by a column, those that are the same in the order in which they came. Made once for many keys: what is
 * typed changes neither the order nor the texts.
 */
export function sortedBy<R>(
  rows: readonly R[],
  columns: readonly Column<R>[],
  { column, isDown }: Order,
): Sorted<R> {
  const texts = columns.filter(({ is }) => is === 'text');
  const by = columns.find(({ key }) => key === column);
  // Worked out once a row: comparing asks for each many times.
  const keyed = rows.map((row) => ({
    row,
    text: folded(texts.map(({ value }) => String(value(row) ?? '')).join(' ')),
    value: by === undefined ? null : sortable(by.value(row)),
  }));
  const turn = isDown ? -1 : 1;
  keyed.sort((a, b) => {
    if (a.value === null || b.value === null)
      return Number(a.value === null) - Number(b.value === null);
    return a.value < b.value ? -turn : a.value > b.value ? turn : 0;
  });
  return keyed;
}

/** Rows on whose texts every word typed stands, capitals and accents making no difference. */
export function fitting<R>(sorted: Sorted<R>, typed: string): readonly R[] {
  const words = wordsIn(typed);
  const found =
    words.length === 0
      ? sorted
      : sorted.filter(({ text }) => words.every((word) => text.includes(word)));
  return found.map(({ row }) => row);
}

const sortable = (value: string | number | null): string | number | null =>
  typeof value === 'string' ? folded(value) : value;
