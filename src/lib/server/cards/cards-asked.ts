/**
 * Which device asked for which card payment, and what the acquirer answered: the server's own word, by which
 * it says who may undo what, and compares what devices say.
 */
import { QueryTypes } from 'sequelize';
import type { CardAnswer } from '../../core/payment/card-messages';
import type { Database } from '../database/database';
import { select } from '../database/select';

type Db = Pick<Database, 'sequelize'>;

export interface CardAskedRow {
  readonly device: string;
  /** Minor units. */
  readonly amount: number;
  readonly currency: string;
  /** What the acquirer said last; empty while it has not. */
  readonly state: string;
  /** Minor units that it approved, took or holds. */
  readonly answered: number;
}

export async function askedCard(
  database: Db,
  business: string,
  payment: string,
): Promise<CardAskedRow | null> {
  const [row] = await select<Record<keyof CardAskedRow, string>>(
    database,
    'SELECT device, amount, currency, state, answered FROM cards_asked WHERE business = ? AND payment = ?',
    [business, payment],
  );
  if (row === undefined) return null;
  return { ...row, amount: Number(row.amount), answered: Number(row.answered) };
}

/**
 * Notes that a device asks, before anybody is asked.
 * @returns The row that stands: of whoever asked first under that reference.
 */
export async function noteAsked(
  database: Db,
  business: string,
  asked: { payment: string; device: string; amount: number; currency: string },
  now: number,
): Promise<CardAskedRow> {
  const { payment, device, amount, currency } = asked;
  await database.sequelize.query(
    'INSERT IGNORE INTO cards_asked (business, payment, device, amount, currency, askedAt) ' +
      'VALUES (?, ?, ?, ?, ?, ?)',
    { replacements: [business, payment, device, amount, currency, now], type: QueryTypes.INSERT },
  );
  const row = await askedCard(database, business, payment);
  if (row === null) throw new Error('what was just written is not there');
  return row;
}

/** What the acquirer said of it. */
export async function noteAnswer(
  { sequelize }: Db,
  business: string,
  payment: string,
  { state, amount }: CardAnswer,
): Promise<void> {
  await sequelize.query(
    'UPDATE cards_asked SET state = ?, answered = ? WHERE business = ? AND payment = ?',
    { replacements: [state, amount, business, payment] },
  );
}
