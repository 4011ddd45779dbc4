/** Sales that were said to be of another event than they were rung up at, and what paid for them, as they stand. */
import type { Transaction } from 'sequelize';
import type { Row } from '../../core/books/tables';
import { asCorrected, type Correctable } from '../../core/sale/corrections';
import { sqlTable } from '../database/book-tables';
import type { Database } from '../database/database';
import { select } from '../database/select';
import type { BookReader } from './read-books';

/** Whose books are read, at which moment. */
interface Reading {
  readonly books: BookReader;
  readonly business: string;
  readonly transaction: Transaction;
}

export interface MovedSales {
  /** As they were rung up, and their parts as they were taken. */
  readonly sales: readonly Row<'sales'>[];
  readonly taken: readonly Row<'payments'>[];
  readonly now: readonly Correctable[];
  /** Of `now`: of each part the event that it is of. */
  readonly parts: ReadonlyMap<string, Row<'payments'>>;
}

/** Which they are. @param event Only those that left it or came to it; null for all. */
export async function salesMoved(
  database: Database,
  business: string,
  event: string | null,
  transaction: Transaction,
): Promise<readonly string[]> {
  const said = await select<{ sale: string }>(
    database,
    `SELECT DISTINCT sale FROM ${sqlTable('corrections')} ` +
      `WHERE business = ? ${event === null ? '' : 'AND event = ? '}AND JSON_VALUE(fix, '$.is') = 'event'`,
    event === null ? [business] : [business, event],
    transaction,
  );
  return said.map(({ sale }) => sale);
}

/** @param of Sales that were moved. */
export async function movedSales(reading: Reading, of: readonly string[]): Promise<MovedSales> {
  if (of.length === 0) return { sales: [], taken: [], now: [], parts: new Map() };
  const { books, business, transaction } = reading;
  const sales = await books.rows(business, 'sales', { id: [...of] }, transaction);
  const paid = { id: sales.flatMap(({ payments }) => payments) };
  const taken = await books.rows(business, 'payments', paid, transaction);
  const now = await asTheyStand(reading, sales, taken);
  const parts = now.flatMap(({ payments }) => payments);
  return { sales, taken, now, parts: new Map(parts.map((part) => [part.id, part])) };
}

/** Those that were rung up at an event and sold elsewhere. */
export const awayFrom = ({ now }: MovedSales, event: string): ReadonlySet<string> =>
  new Set(now.flatMap(({ sale }) => (sale.event === event ? [] : sale.id)));

/** Those that were sold at an event although they were rung up elsewhere. */
export function soldHere({ sales, now }: MovedSales, event: string): readonly Correctable[] {
  const rungHere = new Set(sales.flatMap((sale) => (sale.event === event ? sale.id : [])));
  return now.filter(({ sale }) => sale.event === event && !rungHere.has(sale.id));
}

/** @param payments Their parts, where those matter. */
export async function asTheyStand(
  { books, business, transaction }: Reading,
  sales: readonly Row<'sales'>[],
  payments: readonly Row<'payments'>[] = [],
): Promise<readonly Correctable[]> {
  const of = { sale: sales.map(({ id }) => id) };
  const lines = await books.rows(business, 'saleLines', of, transaction);
  const corrections = await books.rows(business, 'corrections', of, transaction);
  return sales.map((sale) =>
    asCorrected<Correctable>(
      {
        sale,
        lines: lines.filter((line) => line.sale === sale.id),
        payments: payments.filter(({ id }) => sale.payments.includes(id)),
      },
      corrections,
    ),
  );
}
