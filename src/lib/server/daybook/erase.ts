/** Customers who are erased lose what is personal in every entry that is stored, now and later. */
import type { Transaction } from 'sequelize';
import { erasedBy, forgetting, PERSON_FIELDS, personIn } from '../../core/customer/erased';
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

const PEOPLE_IN = Object.entries(PERSON_FIELDS);
const SPEAKS_OF = PEOPLE_IN.map(
  ([, field]) => `(JSON_VALUE(entry, '$.kind') = ? AND JSON_VALUE(entry, '$.body.${field}') = ?)`,
).join(' OR ');

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
    for (const [table, key] of [
      ['daybook_entries', 'position'],
      ['access_unsent', 'device, seq'],
    ] as const) {
      const rows = await select<{ entry: string } & Record<string, string>>(
        database,
        `SELECT ${key}, entry FROM ${table} WHERE business = ? AND (${SPEAKS_OF})`,
        [business, ...PEOPLE_IN.flatMap(([kind]) => [kind, customer])],
        transaction,
      );
      for (const { entry, ...keys } of rows) {
        const bare = withoutPrivate(entrySchema.parse(JSON.parse(entry)));
        const names = Object.keys(keys);
        await database.sequelize.query(
          `UPDATE ${table} SET entry = ? WHERE business = ? AND ` +
            names.map((name) => `${name} = ?`).join(' AND '),
          {
            replacements: [JSON.stringify(bare), business, ...names.map((name) => keys[name])],
            transaction,
          },
        );
      }
    }
  }
}
