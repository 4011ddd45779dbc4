/**
 * Cards on file, by the customer they are of. What the acquirer calls them stands here and nowhere else. A
 * card can be charged once the entry that says so has arrived, with the customer's consent; one that nobody
 * wrote down, was taken off, or whose customer was forgotten is forgotten by the acquirer too.
 */
import { QueryTypes } from 'sequelize';
import type { CardOnFile } from '../../core/daybook/kinds/customer-card';
import type { Database } from '../database/database';
import { select } from '../database/select';
import type { Acquirer, AcquirerAnswer } from './acquirer';
import { ofBusiness } from './card-route';

type Db = Pick<Database, 'sequelize'>;

const AT_ONCE = 20;
/** So long a card waits for the entry that says it is on file. */
const WAITS = 24 * 3_600_000;

export type KeptCard =
  | { readonly came: 'answer'; readonly card: CardOnFile }
  | { readonly came: 'overtaken' }
  | Exclude<AcquirerAnswer, { readonly came: 'answer' }>;

/** Puts a card on file with the acquirer, in place of the one before. @param now Milliseconds since 1970. */
export async function keepOnFile(
  database: Db,
  acquirer: Acquirer,
  business: string,
  customer: string,
  sealed: string,
  now: number,
): Promise<KeptCard> {
  // Noted first, so that a card which the acquirer keeps is never one that nobody knows of.
  await database.sequelize.query(
    `INSERT INTO cards_on_file (business, customer, token, last4, asks, keptAt) VALUES (?, ?, '', '', 1, ?)
      ON DUPLICATE KEY UPDATE asks = asks + 1, token = '', last4 = '', keptAt = VALUES(keptAt)`,
    { replacements: [business, customer, now] },
  );
  const [row] = await select<{ asks: number }>(
    database,
    'SELECT asks FROM cards_on_file WHERE business = ? AND customer = ?',
    [business, customer],
  );
  const said = await acquirer.keep(ofBusiness(business, customer), sealed);
  if (said.came !== 'answer') return said;
  const { token, ...card } = said.card;
  // Somebody else put one on file meanwhile: which of them the acquirer has kept, nobody can tell.
  const changed = await database.sequelize.query(
    'UPDATE cards_on_file SET token = ?, last4 = ? WHERE business = ? AND customer = ? AND asks = ?',
    {
      replacements: [token, card.last4, business, customer, row?.asks ?? 0],
      type: QueryTypes.BULKUPDATE,
    },
  );
  return changed === 1 ? { came: 'answer', card } : { came: 'overtaken' };
}

/** The token of a customer's card that may be charged, or null. */
export async function tokenOf(
  database: Db,
  business: string,
  customer: string,
): Promise<string | null> {
  const [row] = await select<{ token: string }>(
    database,
    `SELECT f.token FROM cards_on_file f
      JOIN books_customers c ON c.business = f.business AND c.id = f.customer
      WHERE f.business = ? AND f.customer = ? AND f.token <> ''
        AND c.cardLast4 = f.last4 AND c.isErased = 0`,
    [business, customer],
  );
  return row?.token ?? null;
}

/**
 * Tells the acquirer to keep no card that must not be on file.
 * @returns How many are left to be told.
 * @throws {Error} If the acquirer does not answer; what it was told before that is noted.
 */
export async function forgetCards(database: Db, acquirer: Acquirer, now: number): Promise<number> {
  const due = await select<{ business: string; customer: string; asks: number }>(
    database,
    `SELECT f.business, f.customer, f.asks FROM cards_on_file f
      LEFT JOIN books_customers c ON c.business = f.business AND c.id = f.customer
      WHERE (${TAKEN_OFF} AND (c.isErased = 1 OR f.keptAt < ?
          OR CONV(LEFT(c.cardStamp, 12), 16, 10) > f.keptAt))
        OR (COALESCE(c.cardLast4, '') <> f.last4 AND f.keptAt < ?)
      LIMIT ?`,
    // A card that was only just put on file may take the place of one that was taken off before.
    [now - SOON, now - WAITS, AT_ONCE],
  );
  for (const { business, customer, asks } of due) {
    await acquirer.forget(ofBusiness(business, customer));
    await database.sequelize.query(
      'DELETE FROM cards_on_file WHERE business = ? AND customer = ? AND asks = ?',
      { replacements: [business, customer, asks] },
    );
  }
  const [left] = await select<{ n: string }>(
    database,
    `SELECT COUNT(*) AS n FROM cards_on_file f
      JOIN books_customers c ON c.business = f.business AND c.id = f.customer WHERE ${TAKEN_OFF}`,
    [],
  );
  return Number(left?.n ?? 0);
}

const TAKEN_OFF = "(c.cardStamp <> '' AND c.cardLast4 = '')";

/** An entry follows its card within this, where there is network. */
const SOON = 60_000;
