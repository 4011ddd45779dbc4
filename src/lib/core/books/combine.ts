/** Fewer changes that do the same: what a batch of entries adds to the same row, added once. */
import { keyOfChange, type Change } from './change';

/** Additions to the same row become one; the order of all else stays. */
export function combine(changes: readonly Change[]): Change[] {
  const sums = new Map<string, Record<string, number>>();
  const combined: Change[] = [];
  for (const change of changes) {
    if (change.op !== 'add') {
      combined.push(change);
      continue;
    }
    const key = `${change.table} ${keyOfChange(change)}`;
    const sum = sums.get(key);
    if (sum === undefined) {
      const fields = { ...change.fields };
      sums.set(key, fields);
      combined.push({ ...change, fields });
    } else {
      for (const [field, by] of Object.entries(change.fields)) {
        sum[field] = (sum[field] ?? 0) + by;
      }
    }
  }
  return combined;
}
