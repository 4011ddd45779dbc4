/** Letters and messages that nobody took for days: loose ends, since whoever asked for one counts on it. */
import type { LostLetter } from '../../core/loose-end/lost-letter';
import type { Database } from '../database/database';
import { select } from '../database/select';
import { MOST_TRIES } from './send-receipts';

const MOST_SHOWN = 50;

/** Those that nobody has settled, the latest first; at most fifty. */
export async function lettersGivenUp(
  database: Database,
  business: string,
): Promise<readonly LostLetter[]> {
  const rows = await select<{
    id: string;
    way: LostLetter['way'];
    arrived: string;
    about: string | null;
  }>(
    database,
    `SELECT s.id, s.way, s.arrived,
       COALESCE(a.sale, i.invoice, r.invoice, l.list, m.event) AS about FROM receipts_sent s
     LEFT JOIN books_receipt_asks a ON a.business = s.business AND a.id = s.id
     LEFT JOIN books_invoice_asks i ON i.business = s.business AND i.id = s.id
     LEFT JOIN books_reminders r ON r.business = s.business AND r.id = s.id
     LEFT JOIN books_list_acts l ON l.business = s.business AND l.id = s.id
     LEFT JOIN books_maker_mails m ON m.business = s.business AND m.id = s.id
     WHERE s.business = ? AND s.state = 'due' AND s.tries >= ? AND NOT EXISTS (
       SELECT 1 FROM books_settlements t
       WHERE t.business = s.business AND t.looseEnd = CONCAT('letter:', s.id))
     ORDER BY s.arrived DESC, s.id LIMIT ?`,
    [business, MOST_TRIES, MOST_SHOWN],
  );
  return rows.map(({ id, way, arrived, about }) => ({
    ...{ looseEnd: `letter:${id}`, way, about: about ?? '' },
    at: new Date(Number(arrived)).toISOString(),
  }));
}
