import type { Pieces } from '../../core/money/worth';

/** Counts as typed become pieces; what is not a number stays one that the core refuses. */
export function piecesFrom(typed: Readonly<Record<number, string>>): Pieces[] {
  return Object.entries(typed)
    .map(([value, text]) => ({
      value: Number(value),
      count: text.trim() === '' ? 0 : Number(text.trim()),
    }))
    .sort((a, b) => b.value - a.value);
}
