/** Money that goes back to cards, or onto one: what was decided, and what the acquirer said of it. */
import { entrySchema } from '../../core/daybook/entry';
import { readEntry } from '../../core/daybook/read-entry';
import { clipped, type RefundAnswer } from '../../core/payment/card-messages';
import { isShutOut } from '../access/devices';
import type { Database } from '../database/database';
import { select } from '../database/select';
import { STANDS } from './may-undo';

type Db = Pick<Database, 'sequelize'>;

export interface DecidedRefund {
  /** The payment that some of goes back; null where it goes onto a card that had paid for nothing here. */
  readonly payment: string | null;
  /** Of that card: sealed for the acquirer. */
  readonly sealed: string;
  /** Minor units. */
  readonly amount: number;
  /** ISO 4217. */
  readonly currency: string;
}

/**
 * By a return, or a refund without a sale, that was judged and stands. Only the device whose it is asks for it,
 * or any once that one is shut out.
 */
export async function decidedRefund(
  database: Db,
  business: string,
  device: string,
  refund: string,
): Promise<DecidedRefund | 'card/not-decided' | 'card/other-device'> {
  const [row] = await select<
    Record<'payment' | 'amount' | 'device' | 'entry' | 'currency', string>
  >(
    database,
    `SELECT r.payment, r.amount, r.device, e.entry, b.currency FROM books_card_refunds r
      JOIN daybook_entries e ON e.business = r.business AND e.id = r.return
      JOIN books_businesses b ON b.business = r.business AND b.id = r.business
      WHERE r.business = ? AND r.id = ? AND r.askedStamp <> '' AND ${STANDS}`,
    [business, refund],
  );
  if (row === undefined) return 'card/not-decided';
  if (row.device !== device && !(await isShutOut(database, { business, device: row.device })))
    return 'card/other-device';
  const sealed = sealedIn(row.entry, refund);
  const payment = sealed === '' ? row.payment : null;
  return { payment, sealed, amount: Number(row.amount), currency: row.currency };
}

/** Of a card that was there; empty where it goes back to one that had paid. */
function sealedIn(entry: string, refund: string): string {
  const read = readEntry(entrySchema.parse(JSON.parse(entry)));
  if (!read.ok || read.entry.kind !== 'refund.made') return '';
  const { card } = read.entry.body.money;
  return card?.refund === refund ? card.sealed : '';
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
