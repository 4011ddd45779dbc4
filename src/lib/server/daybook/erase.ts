/** Customers who are erased lose what is personal in every entry that is stored, now and later. */
import type { Transaction } from 'sequelize';
import { erasedBy, forgetting, personIn } from '../../core/customer/erased';
import { withoutPrivate } from '../../core/daybook/chain';
import { entrySchema, type Entry } from '../../core/daybook/entry';
import type { Database } from '../database/database';
import { select } from '../database/select';

/** Entries as they may be stored: nothing personal of somebody who has been erased already. */
export async function asMayBeStored(
  database: Database,
  business: string,
  entries: readonly Entry[],
  transaction: Transaction,
): Promise<readonly Entry[]> {
  const people = entries.flatMap((entry) => personIn(entry) ?? []);
  if (people.length === 0) return entries;
  const rows = await select<{ id: string }>(
    database,
    'SELECT id FROM books_customers WHERE business = ? AND isErased = 1 AND id IN (?)',
    [business, people],
    transaction,
  );
  const erased = new Set(rows.map(({ id }) => id));
  return erased.size === 0 ? entries : entries.map((entry) => forgetting(entry, erased));
}

/** Drops what is personal of those whom these entries, which are in the books now, erase. */
export async function eraseAll(
  database: Database,
  business: string,
  applied: readonly Entry[],
  transaction: Transaction,
): Promise<void> {
  for (const customer of erasedBy(applied)) {
    await database.sequelize.query('DELETE FROM books_payers WHERE business = ? AND customer = ?', {
      replacements: [business, customer],
      transaction,
    });
    await database.sequelize.query(
      "UPDATE books_orders SET note = '' WHERE business = ? AND customer = ?",
      { replacements: [business, customer], transaction },
    );
    await database.sequelize.query(
      "UPDATE books_invoices SET buyer = 'null', note = IF(sort = 'invoice', '', note) " +
        'WHERE business = ? AND customer = ?',
      { replacements: [business, customer], transaction },
    );
    await database.sequelize.query(
      "UPDATE books_charges SET note = '', reference = '' WHERE business = ? AND customer = ?",
      { replacements: [business, customer], transaction },
    );
    await eraseStored(database, business, customer, transaction);
    await eraseAside(database, business, customer, transaction);
  }
}

/** In the daybook; whose data an entry holds stands beside it. */
async function eraseStored(
  database: Database,
  business: string,
  customer: string,
  transaction: Transaction,
): Promise<void> {
  const rows = await select<{ position: string; entry: string }>(
    database,
    'SELECT position, entry FROM daybook_entries WHERE business = ? AND person = ?',
    [business, customer],
    transaction,
  );
  for (const { position, entry } of rows) {
    const bare = withoutPrivate(entrySchema.parse(JSON.parse(entry)));
    await database.sequelize.query(
      'UPDATE daybook_entries SET entry = ?, person = NULL WHERE business = ? AND position = ?',
      { replacements: [JSON.stringify(bare), business, position], transaction },
    );
  }
}

/** In what devices that were shut out have handed over; there is little of it, and seldom any. */
async function eraseAside(
  database: Database,
  business: string,
  customer: string,
  transaction: Transaction,
): Promise<void> {
  const rows = await select<{ device: string; seq: number; entry: string }>(
    database,
    "SELECT device, seq, entry FROM access_unsent WHERE business = ? AND JSON_EXISTS(entry, '$.private')",
    [business],
    transaction,
  );
  const erased = new Set([customer]);
  for (const { device, seq, entry } of rows) {
    const stored = entrySchema.parse(JSON.parse(entry));
    const bare = forgetting(stored, erased);
    if (bare === stored) continue;
    await database.sequelize.query(
      'UPDATE access_unsent SET entry = ? WHERE business = ? AND device = ? AND seq = ?',
      { replacements: [JSON.stringify(bare), business, device, seq], transaction },
    );
  }
}
