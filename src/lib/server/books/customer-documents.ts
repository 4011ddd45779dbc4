/** What belongs to a customer and devices let go of with its event: sales, what they signed, what moved on their accounts. */
import { Op } from 'sequelize';
import { salesOf, type CustomerDocuments } from '../../core/customer/export-customer';
import { Joined } from '../../core/customer/joined';
import { select } from '../database/select';
import { recordsAmong } from './customer-records';
import { heldMovesOf } from './held-moves';
import type { BookReader } from './read-books';

/** Sales that were said afterwards to be somebody's. */
const SAID_TO_BE =
  "SELECT sale FROM books_corrections WHERE business = ? AND JSON_VALUE(fix, '$.customer') IN (?)";

/** On all records of whoever this one is of; empty where nobody is known by it. */
export async function customerDocuments(
  books: BookReader,
  business: string,
  id: string,
): Promise<CustomerDocuments> {
  const { database } = books;
  const theirs = await database.snapshot(async (transaction) => {
    const rows = await recordsAmong(books, business, [id], transaction);
    const records = new Joined(rows)
      .records(id)
      .filter((each) => rows.some((row) => row.id === each && !row.isErased));
    if (records.length === 0) return null;
    const said = await select<{ sale: string }>(
      database,
      SAID_TO_BE,
      [business, records],
      transaction,
    );
    const where = { [Op.or]: [{ customer: records }, { id: said.map(({ sale }) => sale) }] };
    const sales = await books.rows(business, 'sales', where, transaction);
    const of = { sale: sales.map((sale) => sale.id) };
    const corrections = await books.rows(business, 'corrections', of, transaction);
    const payers = await books.rows(business, 'payers', { customer: records }, transaction);
    return { sales: salesOf(records, sales, corrections), payers };
  });
  if (theirs === null) return { sales: [], payers: [], moves: [] };
  const accounts = [`customer:${id}`, `credit:${id}`, `points:${id}`];
  const { moves } = await heldMovesOf(books, business, accounts);
  return {
    sales: theirs.sales.map(({ id: sale, number, at, total }) => ({ id: sale, number, at, total })),
    payers: theirs.payers.map(({ id: payment, name, strokes }) => ({ id: payment, name, strokes })),
    moves,
  };
}
