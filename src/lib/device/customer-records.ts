/** Records of customers that are of one person, as this device knows them (core/customer/joined). */
import type { Row } from '../core/books/tables';
import { Joined, recordsAbout } from '../core/customer/joined';
import type { DeviceDatabase } from './database';

type Customer = Row<'customers'>;

/** Rows of these customers, and of all records that are of the same people. */
export const recordsAmong = async (
  { books }: DeviceDatabase,
  customers: Iterable<string>,
): Promise<readonly Customer[]> =>
  await recordsAbout(customers, {
    byId: async (ids) => {
      const rows = await books.customers.bulkGet([...ids]);
      return rows.filter((row) => row !== undefined);
    },
    into: (ids) =>
      books.customers
        .where('joinedInto')
        .anyOf([...ids])
        .toArray(),
  });

export interface Person {
  /** The record that they go by; undefined where nobody is known by that id. */
  readonly customer: Customer | undefined;
  /** The ids of all their records, the one they go by first. */
  readonly records: readonly string[];
  readonly rows: readonly Customer[];
  readonly joined: Joined;
}

/** Whoever has this record. */
export async function personOf(db: DeviceDatabase, id: string): Promise<Person> {
  const rows = await recordsAmong(db, [id]);
  const joined = new Joined(rows);
  const records = joined.records(id);
  return {
    ...{ records, joined, customer: rows.find((row) => row.id === records[0]) },
    rows: records.flatMap((each) => rows.filter((row) => row.id === each)),
  };
}

/** The record that whoever has this one goes by. */
export const customerOf = async (db: DeviceDatabase, id: string): Promise<Customer | undefined> =>
  (await personOf(db, id)).customer;

/** Which of the records that these accounts are of are one person's; an account of nobody is its own. */
export const joinedIn = async (db: DeviceDatabase, customers: Iterable<string>): Promise<Joined> =>
  new Joined(await recordsAmong(db, customers));
