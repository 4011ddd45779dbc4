import { jsonOrNull } from '../../core/formats/json-or-null';
import {
  keptSchema,
  TO_BE_SEEN,
  TRIED_AGAIN,
  type Kept,
  type KeptAnswer,
  type ToBeSeen,
} from '../../core/daybook/sync-messages';
import type { Database } from '../database/database';
import { select } from '../database/select';
import { storedEntry } from './stored-entry';

const MOST_KEPT = 200;
/** As the daybook has it beside an entry. */
export const whySchema = keptSchema.pick({ code: true, message: true });
const list = (states: readonly string[]): string => states.map((state) => `'${state}'`).join(', ');
/** For SQL. */
export const TO_BE_SEEN_LIST = list(TO_BE_SEEN);
export const TRIED_AGAIN_LIST = list(TRIED_AGAIN);

/** Characters that the daybook has for it. */
const LONGEST_FAULT = 1000;

/** Why it is not simply applied, as the daybook has it beside the entry: a message that is too long is cut, not the JSON. */
export function asFault(kept: Kept | null): string {
  if (kept === null) return '';
  for (let { message } = kept; ;) {
    const text = JSON.stringify({ ...kept, message });
    if (text.length <= LONGEST_FAULT) return text;
    // Not through one of two units.
    const cut = message.replace(/…$/, '').slice(0, LONGEST_FAULT - text.length - 1);
    message = `${cut.replace(/[\uD800-\uDBFF]$/, '')}…`;
  }
}

/**
 * What could not be applied or should not have been written and has not been settled, oldest first;
 * at most 200, since each must be looked at by a person, and how many more there are.
 */
export async function keptEntries(
  database: Database,
  business: string,
): Promise<Pick<KeptAnswer, 'kept' | 'more'>> {
  const rows = await select<KeptRow>(
    database,
    `SELECT entry, held, state, fault FROM daybook_entries e WHERE ${OPEN} ORDER BY position LIMIT ?`,
    [business, MOST_KEPT],
  );
  const [all] = await select<{ n: string }>(
    database,
    `SELECT COUNT(*) AS n FROM daybook_entries e WHERE ${OPEN}`,
    [business],
  );
  const kept = rows.map(({ entry, held, state, fault }) => {
    const why = whySchema.safeParse(jsonOrNull(fault));
    const { code, message } = why.success ? why.data : { code: state, message: fault };
    return { entry: storedEntry({ entry, held }), state, code, message };
  });
  return { kept, more: Number(all?.n ?? 0) - kept.length };
}

interface KeptRow {
  readonly entry: string;
  readonly held: string;
  readonly state: ToBeSeen;
  readonly fault: string;
}

const OPEN =
  `business = ? AND state IN (${TO_BE_SEEN_LIST}) AND NOT EXISTS (SELECT 1 FROM ` +
  "books_settlements s WHERE s.business = e.business AND s.looseEnd = CONCAT('entry:', e.id))";
