/**
 * Whether money may be given back or let go of: only by an entry that was judged and stands, or, of a
 * payment that was asked for and never taken, by the device that asked, or by any once that one is shut out.
 */
import type { Database } from '../database/database';
import { select } from '../database/select';
import { isShutOut } from '../access/devices';
import { askedCard } from './cards-asked';

type Db = Pick<Database, 'sequelize'>;

/** An entry stands if nothing was found against it, or somebody who may has accepted it. */
export const STANDS =
  "(e.state = 'applied' OR (e.state = 'doubted' AND EXISTS (SELECT 1 FROM books_settlements s " +
  "WHERE s.business = e.business AND s.looseEnd = CONCAT('entry:', e.id) AND s.how = 'accepted')))";

export type Undoing =
  | { readonly may: true }
  /** Nobody has decided it, as far as has been heard: it may still be on its way. */
  | { readonly may: false; readonly code: 'card/not-decided' | 'card/other-device' };

export async function mayCancel(
  database: Db,
  business: string,
  device: string,
  payment: string,
): Promise<Undoing> {
  const [taken] = await select<{ id: string }>(
    database,
    'SELECT id FROM books_payments WHERE business = ? AND id = ?',
    [business, payment],
  );
  if (taken !== undefined) {
    const isDecided = (await entryThatUndoes(database, business, payment)) !== null;
    return isDecided ? { may: true } : { may: false, code: 'card/not-decided' };
  }
  const asked = await askedCard(database, business, payment);
  const [written] = await select<{ device: string }>(
    database,
    "SELECT device FROM books_card_payments WHERE business = ? AND id = ? AND askedStamp <> ''",
    [business, payment],
  );
  for (const whose of [asked?.device ?? device, written?.device ?? device]) {
    const isOurs = whose === device || (await isShutOut(database, { business, device: whose }));
    if (!isOurs) return { may: false, code: 'card/other-device' };
  }
  return { may: true };
}

/**
 * The entry that gives a part back, or voids its sale, and stands; null if there is none. A void names the parts
 * that cards paid; before version 2 of the kind, all parts.
 */
async function entryThatUndoes(
  database: Db,
  business: string,
  payment: string,
): Promise<string | null> {
  const [row] = await select<{ id: string }>(
    database,
    `SELECT e.id FROM books_reversals r JOIN daybook_entries e ON e.business = r.business AND e.id = r.id
      WHERE r.business = ? AND r.payment = ? AND ${STANDS}
    UNION ALL
    SELECT e.id FROM books_payments p
      JOIN books_sales b ON b.business = p.business AND b.slip = p.slip
      JOIN books_voids v ON v.business = b.business AND v.sale = b.id
      JOIN daybook_entries e ON e.business = v.business AND e.id = v.id
      WHERE p.business = ? AND p.id = ? AND ${STANDS}
        AND COALESCE(
          JSON_CONTAINS(JSON_EXTRACT(e.entry, '$.body.cards'), JSON_QUOTE(p.id)),
          JSON_CONTAINS(JSON_EXTRACT(e.entry, '$.body.parts[*].payment'), JSON_QUOTE(p.id))
        )
    LIMIT 1`,
    [business, payment, business, payment],
  );
  return row?.id ?? null;
}

export interface Decided {
  readonly does: 'capture' | 'release';
  /** Minor units. */
  readonly amount: number;
}

/** What was decided of money that is held, by an entry that stands; null if nothing was. */
export async function decidedHold(
  database: Db,
  business: string,
  payment: string,
): Promise<Decided | null> {
  const [row] = await select<{ does: string; amount: string }>(
    database,
    `SELECT c.decision AS does, c.decidedAmount AS amount FROM books_card_payments c
      JOIN daybook_entries e ON e.business = c.business AND e.id = c.decidedBy
      WHERE c.business = ? AND c.id = ? AND ${STANDS}`,
    [business, payment],
  );
  if (row?.does !== 'capture' && row?.does !== 'release') return null;
  return { does: row.does, amount: Number(row.amount) };
}
