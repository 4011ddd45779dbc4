/** Money that goes back to cards because goods came back: what was decided, and what the acquirer said of it. */
import type { RefundAnswer } from '../../core/payment/card-messages';
import { clipped } from '../../core/payment/card-messages';
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

/** What the acquirer said; what it said first stays. */
export async function noteRefund(
  { sequelize }: Db,
  business: string,
  { refund, state, amount }: Pick<RefundAnswer, 'state' | 'amount'> & { readonly refund: string },
): Promise<void> {
  await sequelize.query(
    'INSERT IGNORE INTO cards_refunded (business, refund, state, amount) VALUES (?, ?, ?, ?)',
    { replacements: [business, refund, state, amount] },
  );
}

export const refundSaid = (
  state: RefundAnswer['state'],
  amount: number,
  reason: string,
): RefundAnswer => ({ state, amount, reason: clipped(reason) });
