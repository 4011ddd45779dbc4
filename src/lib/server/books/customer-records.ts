/** Records of customers that are of one person (core/customer/joined). */
import type { Transaction } from 'sequelize';
import type { Row } from '../../core/books/tables';
import { Joined, recordsAbout } from '../../core/customer/joined';
import type { BookReader } from './read-books';

/** Rows of these customers, and of all records that are of the same people. */
export const recordsAmong = async (
  books: BookReader,
  business: string,
  customers: Iterable<string>,
  transaction?: Transaction,
): Promise<readonly Row<'customers'>[]> =>
  await recordsAbout(customers, {
    byId: (ids) => books.rows(business, 'customers', { id: [...ids] }, transaction),
    into: (ids) => books.rows(business, 'customers', { joinedInto: [...ids] }, transaction),
  });

/** Which of these customers' records are of one person. */
export const joinedAmong = async (
  books: BookReader,
  business: string,
  customers: Iterable<string>,
  transaction?: Transaction,
): Promise<Joined> => new Joined(await recordsAmong(books, business, customers, transaction));
