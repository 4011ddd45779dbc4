import type { Database } from '../database/database';
import { select } from '../database/select';

/** An entry that is safe in the daybook but not in the books. */
export interface KeptEntry {
  readonly id: string;
  readonly kind: string;
  readonly device: string;
  readonly seq: number;
  /** Why, as JSON of a `Kept`. */
  readonly fault: string;
}

/** What could not be applied, oldest first; at most 200. */
export async function keptEntries(database: Database, business: string): Promise<KeptEntry[]> {
  return await select<KeptEntry>(
    database,
    "SELECT id, kind, device, seq, fault FROM daybook_entries WHERE business = ? AND state = 'kept' " +
      'ORDER BY position LIMIT 200',
    [business],
  );
}
