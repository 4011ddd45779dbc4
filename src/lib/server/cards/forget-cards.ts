/**
 * Tells the acquirer to keep no card of customers whose card was taken off file, or who were forgotten.
 * It is told once for each time; telling it twice does no harm.
 */
import type { Database } from '../database/database';
import { select } from '../database/select';
import type { Acquirer } from './acquirer';
import { ofBusiness } from './card-route';

const AT_ONCE = 20;

interface Due {
  readonly business: string;
  readonly id: string;
  readonly cardStamp: string;
}

/**
 * @returns How many are left to be told.
 * @throws {Error} If the acquirer does not answer; what it was told before that is noted.
 */
export async function forgetCards(database: Database, acquirer: Acquirer): Promise<number> {
  const due = await select<Due>(
    database,
    `SELECT c.business, c.id, c.cardStamp FROM books_customers c
      LEFT JOIN cards_forgotten f ON f.business = c.business AND f.customer = c.id
      WHERE c.cardToken = '' AND c.cardStamp <> '' AND (f.cardStamp IS NULL OR f.cardStamp <> c.cardStamp)
      LIMIT ?`,
    [AT_ONCE + 1],
  );
  for (const { business, id, cardStamp } of due.slice(0, AT_ONCE)) {
    await acquirer.forget(ofBusiness(business, id));
    await database.sequelize.query(
      `INSERT INTO cards_forgotten (business, customer, cardStamp) VALUES (?, ?, ?)
        ON DUPLICATE KEY UPDATE cardStamp = VALUES(cardStamp)`,
      { replacements: [business, id, cardStamp] },
    );
  }
  return Math.max(0, due.length - AT_ONCE);
}
