/**
 * Rows that have not changed stay the objects that they were, so that of many on the screen only those are painted
 * anew that did. Compared field by field, one level deep.
 * @param keyOf Tells rows apart.
 * @param before What this returned last.
 */
export function keepSame<T extends object>(
  keyOf: (row: T) => string,
  before: readonly T[],
  now: readonly T[],
): readonly T[] {
  const known = new Map(before.map((row) => [keyOf(row), row]));
  return now.map((row) => {
    const was = known.get(keyOf(row));
    return was !== undefined && isSame(was, row) ? was : row;
  });
}

/** As `keepSame`, of one row: whatever follows from it is not worked out anew when nothing of it has changed. */
export const keepRow = <T extends object>(before: T | undefined, now: T | undefined) =>
  before !== undefined && now !== undefined && isSame(before, now) ? before : now;

function isSame<T extends object>(one: T, other: T): boolean {
  const [fields, others] = [Object.entries(one), Object.keys(other)];
  return (
    fields.length === others.length &&
    fields.every(([name, value]) => Object.is(value, (other as Record<string, unknown>)[name]))
  );
}
