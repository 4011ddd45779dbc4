/** Dropping what is personal of erased customers from every entry that this device keeps. */
import { forgetting } from '../core/customer/erased';
import type { Entry } from '../core/daybook/entry';
import type { DeviceDatabase } from './database';

/** Within a transaction over `entries`, `received`, `kept` and `payers`. */
export async function erasePrivate(
  db: DeviceDatabase,
  customers: readonly string[],
): Promise<void> {
  const erased = new Set(customers);
  const bare = (entries: readonly Entry[]): Entry[] =>
    entries.map((entry) => forgetting(entry, erased));
  /** False leaves a block as it is, without writing it again. */
  const forget = (block: { entries: readonly Entry[] }): boolean => {
    const next = bare(block.entries);
    const isChanged = next.some((entry, at) => entry !== block.entries[at]);
    if (isChanged) block.entries = next;
    return isChanged;
  };
  await Promise.all([
    db.books.payers
      .where('customer')
      .anyOf([...customers])
      .delete(),
    db.entries.toCollection().modify(forget),
    db.received.toCollection().modify(forget),
    db.kept.toCollection().modify((row: { entry: Entry | null }): boolean => {
      const before = row.entry;
      if (before !== null) row.entry = forgetting(before, erased);
      return row.entry !== before;
    }),
  ]);
}
