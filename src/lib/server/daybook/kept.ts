import type { Database } from '../database/database';
import { select } from '../database/select';

/** An entry that an owner must look at; `state` says whether it is in the books. */
export interface KeptEntry {
  readonly id: string;
  readonly kind: string;
  readonly device: string;
  readonly seq: number;
  readonly by: string | null;
  readonly state: 'kept' | 'barred' | 'doubted';
  /** Why, as JSON of a `Kept`. */
  readonly fault: string;
}

/** What could not be applied or should not have been written, oldest first; at most 200. */
export async function keptEntries(database: Database, business: string): Promise<KeptEntry[]> {
  return await select<KeptEntry>(
    database,
    "SELECT id, kind, device, seq, JSON_VALUE(entry, '$.by') AS `by`, state, fault " +
      "FROM daybook_entries WHERE business = ? AND state <> 'applied' " +
      'ORDER BY position LIMIT 200',
    [business],
  );
}
