/** Money that goes back to cards because goods came back: what was decided, and what the acquirer said of it. */
import { clipped, type RefundAnswer } from '../../core/payment/card-messages';
import { isShutOut } from '../access/devices';
import type { Database } from '../database/database';
import { select } from '../database/select';
import { STANDS } from './may-undo';

type Db = Pick<Database, 'sequelize'>;

export interface DecidedRefund {
  readonly payment: string;
  /** Minor units. */
  readonly amount: number;
}

/** By a return that was judged and stands; only whoever's it is asks for it, or any once that one is shut out. */
export async function decidedRefund(
  database: Db,
  business: string,
  device: string,
  refund: string,
): Promise<DecidedRefund | 'card/not-decided' | 'card/other-device'> {
  const [row] = await select<{ payment: string; amount: string; device: string }>(
    database,
    `SELECT r.payment, r.amount, r.device FROM books_card_refunds r
      JOIN daybook_entries e ON e.business = r.business AND e.id = r.return
      WHERE r.business = ? AND r.id = ? AND r.askedStamp <> '' AND ${STANDS}`,
    [business, refund],
  );
  if (row === undefined) return 'card/not-decided';
  if (row.device !== device && !(await isShutOut(database, { business, device: row.device })))
    return 'card/other-device';
  return { payment: row.payment, amount: Number(row.amount) };
}

/** What the acquirer said of it, if it has: that stands, and it is not asked again. */
export async function notedRefund(
  database: Db,
  business: string,
  refund: string,
): Promise<RefundAnswer | null> {
  const [row] = await select<Record<keyof RefundAnswer, string>>(
    database,
    'SELECT state, amount, reason FROM cards_refunded WHERE business = ? AND refund = ?',
    [business, refund],
  );
  if (row === undefined) return null;
  const state = row.state === 'refunded' ? 'refunded' : 'refused';
  return { state, amount: Number(row.amount), reason: row.reason };
}

/** Notes what the acquirer said. @returns What stands: what it said first. */
export async function noteRefund(
  database: Db,
  business: string,
  refund: string,
  { state, amount, reason }: RefundAnswer,
): Promise<RefundAnswer> {
  await database.sequelize.query(
    'INSERT IGNORE INTO cards_refunded (business, refund, state, amount, reason) VALUES (?, ?, ?, ?, ?)',
    { replacements: [business, refund, state, amount, clipped(reason)] },
  );
  const noted = await notedRefund(database, business, refund);
  if (noted === null) throw new Error('what was just written is not there');
  return noted;
}
