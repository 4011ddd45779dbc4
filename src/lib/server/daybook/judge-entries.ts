/** Asking again, when entries arrive, whether their writers were allowed to write them. */
import type { Transaction } from 'sequelize';
import { entrySchema } from '../../core/daybook/entry';
import type { KnownEntry } from '../../core/daybook/kinds';
import { readEntry } from '../../core/daybook/read-entry';
import { rightsNeeded, type Breach } from '../../core/people/judge';
import { PeopleHistory } from '../../core/people/people-history';
import type { Database } from '../database/database';
import { select } from '../database/select';

/**
 * The breach of each entry that is one, by id. They are judged in their order, each by what was
 * known of its writer at the time. Plain sales ask for no right, and cost no look at the people.
 */
export async function breachesIn(
  database: Database,
  business: string,
  entries: readonly KnownEntry[],
  transaction: Transaction,
): Promise<ReadonlyMap<string, Breach>> {
  const breaches = new Map<string, Breach>();
  if (entries.every((entry) => rightsNeeded(entry).length === 0)) return breaches;
  const people = await peopleOf(database, business, transaction);
  for (const entry of entries) {
    const breach = people.judge(entry);
    if (breach !== null) breaches.set(entry.id, breach);
  }
  return breaches;
}

async function peopleOf(
  database: Database,
  business: string,
  transaction: Transaction,
): Promise<PeopleHistory> {
  const rows = await select<{ entry: string }>(
    database,
    "SELECT entry FROM daybook_entries WHERE business = ? AND kind = 'staff.set' " +
      "AND state = 'applied' ORDER BY position",
    [business],
    transaction,
  );
  const people = new PeopleHistory();
  for (const { entry } of rows) {
    const read = readEntry(entrySchema.parse(JSON.parse(entry)));
    if (read.ok && read.entry.kind === 'staff.set') people.add(read.entry);
  }
  return people;
}
