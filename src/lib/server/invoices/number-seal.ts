/** By which the server knows a number again that it gave: nobody else can make the seal. */
import { createHmac, randomBytes } from 'node:crypto';
import type { Transaction } from 'sequelize';
import type { Database } from '../database/database';
import { select } from '../database/select';

interface Given {
  readonly invoice: string;
  readonly series: string;
  readonly n: number;
  readonly number: string;
}

/** The secret of a business, or null where no number was given yet. */
export async function secretOf(
  database: Pick<Database, 'sequelize'>,
  business: string,
  transaction: Transaction,
): Promise<string | null> {
  const [row] = await select<{ secret: string }>(
    database,
    'SELECT secret FROM invoice_secrets WHERE business = ?',
    [business],
    transaction,
  );
  return row?.secret ?? null;
}

/** Made with the first number; under the lock of the business's counter. */
export async function makeSecret(
  database: Pick<Database, 'sequelize'>,
  business: string,
  transaction: Transaction,
): Promise<string> {
  const known = await secretOf(database, business, transaction);
  if (known !== null) return known;
  const secret = randomBytes(32).toString('hex');
  await database.sequelize.query('INSERT INTO invoice_secrets (business, secret) VALUES (?, ?)', {
    replacements: [business, secret],
    transaction,
  });
  return secret;
}

/** HMAC-SHA-256 in hexadecimal. */
export const sealOf = (
  secret: string,
  business: string,
  { invoice, series, n, number }: Given,
): string =>
  createHmac('sha256', Buffer.from(secret, 'hex'))
    .update([business, invoice, series, String(n), number].join('\n'))
    .digest('hex');
