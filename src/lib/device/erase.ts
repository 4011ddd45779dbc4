/** Dropping what is personal of erased customers from every entry that this device keeps. */
import type { Table } from 'dexie';
import { forgetting } from '../core/customer/erased';
import type { Entry } from '../core/daybook/entry';
import type { DeviceDatabase } from './database';

/** Where something personal stands beside the customers themselves. */
export const personalTables = (db: DeviceDatabase) => [
  ...[db.entries, db.received, db.kept],
  ...[db.books.payers, db.books.orders, db.books.invoices, db.books.charges],
];

/** Within a transaction over `meta` and `personalTables`. */
export async function erasePrivate(
  db: DeviceDatabase,
  customers: readonly string[],
): Promise<void> {
  const erased = new Set(customers);
  const ofBlock = <B extends { readonly entries: readonly Entry[] }>(block: B): B | null => {
    const entries = block.entries.map((entry) => forgetting(entry, erased));
    return entries.some((entry, at) => entry !== block.entries[at]) ? { ...block, entries } : null;
  };
  await db.write('erasures', ((await db.read('erasures')) ?? 0) + 1);
  await db.books.payers
    .where('customer')
    .anyOf([...customers])
    .delete();
  const orders = await db.books.orders
    .where('customer')
    .anyOf([...customers])
    .toArray();
  await db.books.orders.bulkPut(orders.map((order) => ({ ...order, note: '' })));
  const invoices = await db.books.invoices
    .where('customer')
    .anyOf([...customers])
    .toArray();
  await db.books.invoices.bulkPut(
    invoices.map((invoice) => ({
      ...{ ...invoice, buyer: null },
      note: invoice.sort === 'invoice' ? '' : invoice.note,
    })),
  );
  const charges = await db.books.charges
    .where('customer')
    .anyOf([...customers])
    .toArray();
  await db.books.charges.bulkPut(charges.map((each) => ({ ...each, note: '', reference: '' })));
  await rewrite(db.entries, ofBlock);
  await rewrite(db.received, ofBlock);
  await rewrite(db.kept, (row) => {
    const entry = row.entry === null ? null : forgetting(row.entry, erased);
    return entry === row.entry ? null : { ...row, entry };
  });
}

/**
 * Writes those rows again that `change` gives anew. Not by Dexie's `modify`: what that reads it keeps by keys
 * alone, so that a second table with the same keys is given the rows of the first, unless something is written
 * in between.
 */
async function rewrite<R, K>(table: Table<R, K>, change: (row: R) => R | null): Promise<void> {
  const changed: R[] = [];
  await table.toCollection().each((row) => {
    const next = change(row);
    if (next !== null) changed.push(next);
  });
  await table.bulkPut(changed);
}
