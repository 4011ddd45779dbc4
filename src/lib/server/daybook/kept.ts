import { entrySchema } from '../../core/daybook/entry';
import { keptSchema, type KeptAnswer } from '../../core/daybook/sync-messages';
import type { Database } from '../database/database';
import { select } from '../database/select';

const MOST_KEPT = 200;

/**
 * What could not be applied or should not have been written and has not been settled, oldest first;
 * at most 200, since each must be looked at by a person.
 */
export async function keptEntries(
  database: Database,
  business: string,
): Promise<KeptAnswer['kept']> {
  const rows = await select<{ entry: string; state: 'kept' | 'barred' | 'doubted'; fault: string }>(
    database,
    'SELECT entry, state, fault FROM daybook_entries e WHERE business = ? ' +
      "AND state <> 'applied' AND NOT EXISTS (SELECT 1 FROM books_settlements s " +
      "WHERE s.business = e.business AND s.looseEnd = CONCAT('entry:', e.id)) " +
      'ORDER BY position LIMIT ?',
    [business, MOST_KEPT],
  );
  return rows.map(({ entry, state, fault }) => {
    const why = keptSchema.safeParse(asJson(fault));
    const { code, message } = why.success ? why.data : { code: 'kept', message: fault };
    return { entry: entrySchema.parse(JSON.parse(entry)), state, code, message };
  });
}

function asJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
