/** Sales of any age: those that fit what was typed, and one with all that belongs to it. */
import { Joined } from '../../core/customer/joined';
import { beginsWords, hasWords, wordsIn } from '../../core/entry-line/words';
import { readAmount } from '../../core/money/amount-text';
import { sum } from '../../core/money/units';
import {
  MOST_FOUND,
  SHORTEST,
  SHORTEST_REFERENCE,
  type FoundSale,
  type SaleDocument,
} from '../../core/sale/sale-document';
import { asCorrected } from '../../core/sale/corrections';
import { Op, type Transaction } from 'sequelize';
import type { Database } from '../database/database';
import { LIKE, plainly } from '../database/like';
import { select } from '../database/select';
import { recordsAmong } from './customer-records';
import type { BookReader } from './read-books';

/** A condition, and what its question marks stand for. */
type Way = [string, readonly unknown[]];

/**
 * As a device finds them (`device/find-sales.ts`): by the beginning of the number, by the total, by every word of the
 * goods, by who sold or bought, by the day, by a payment's reference or its card's last four; newest first, at most
 * `MOST_FOUND`.
 */
export async function findSales(
  database: Database,
  books: BookReader,
  business: string,
  typed: string,
): Promise<readonly FoundSale[]> {
  const wanted = typed.trim();
  const [owner] = await books.rows(business, 'businesses', { id: business });
  const amount = readAmount(wanted, owner?.currency ?? 'GBP');
  const words = wordsIn(wanted);
  // Each by what it is looked up by; what fits in several ways is found once.
  const ways: Way[] = [
    ['s.number LIKE ?', [`${plainly(wanted.toUpperCase())}%`]],
    [
      's.id IN (SELECT r.sale FROM books_returns r WHERE r.business = s.business AND r.number LIKE ?)',
      [`${plainly(wanted.toUpperCase())}%`],
    ],
  ];
  if (amount.ok) ways.push(['s.paid = ?', [amount.amount]]);
  if (wanted.length >= SHORTEST && words.length > 0)
    ways.push(...(await people(books, business, words)));
  if (wanted.length >= SHORTEST_REFERENCE)
    ways.push([
      's.slip IN (SELECT p.slip FROM books_payments p WHERE p.business = s.business ' +
        'AND (p.reference LIKE ? OR p.reference LIKE ?))',
      // As typed and in capitals, as references mostly are: by the index, which tells them apart.
      [`${plainly(wanted)}%`, `${plainly(wanted.toUpperCase())}%`],
    ]);
  if (/^\d{4}$/.test(wanted))
    ways.push([
      's.slip IN (SELECT c.slip FROM books_card_payments c WHERE c.business = s.business AND c.last4 = ?)',
      [wanted],
    ]);
  if (/^\d{4}-\d{2}-\d{2}$/.test(wanted) && !Number.isNaN(Date.parse(wanted)))
    ways.push(['s.day = ?', [wanted]]);
  return await database.snapshot(async (transaction) => {
    const all = new Set<string>(
      wanted.length > 1 && words.length > 0
        ? await soldAs(database, business, words, transaction)
        : [],
    );
    const each = ways.map(
      ([fits]) =>
        `(SELECT s.id FROM books_sales s WHERE s.business = ? AND ${fits}
          ORDER BY s.id DESC LIMIT ${String(MOST_FOUND)})`,
    );
    const found = await select<{ id: string }>(
      database,
      each.join(' UNION '),
      ways.flatMap(([, values]) => [business, ...values]),
      transaction,
    );
    for (const { id } of found) all.add(id);
    const ids = [...all].sort().slice(-MOST_FOUND);
    if (ids.length === 0) return [];
    const of = async <R extends object>(sql: string): Promise<R[]> =>
      await select<R>(database, sql, [business, ids], transaction);
    // Only what a list shows: whole rows would take longer to be read than to be found.
    const sales = await of<FoundSale['sale'] & Record<'total' | 'uplift', string>>(
      'SELECT id, number, day, at, `by`, total, uplift FROM books_sales WHERE business = ? AND id IN (?) ORDER BY id DESC',
    );
    const lines = await of<{ sale: string; name: string }>(
      'SELECT sale, name FROM books_sale_lines WHERE business = ? AND sale IN (?) ORDER BY sale, line',
    );
    const voids = await of<{ sale: string }>(
      'SELECT sale FROM books_voids WHERE business = ? AND sale IN (?)',
    );
    const returns = await of<{ sale: string; total: string }>(
      'SELECT sale, total FROM books_returns WHERE business = ? AND sale IN (?)',
    );
    return sales.map((sale) => ({
      sale: { ...sale, total: Number(sale.total), uplift: Number(sale.uplift) },
      lines: lines.flatMap((line) => (line.sale === sale.id ? { name: line.name } : [])),
      isVoid: voids.some((each) => each.sale === sale.id),
      back: sum(returns.flatMap((each) => (each.sale === sale.id ? Number(each.total) : []))),
    }));
  });
}

/** So many names are looked up one by one; with more than that, one of the latest sales is bound to have one of them. */
const FEW_NAMES = 64;

/** The latest sales of goods whose name has every word. */
async function soldAs(
  database: Database,
  business: string,
  words: readonly string[],
  transaction: Transaction,
): Promise<readonly string[]> {
  const named = words.map(() => `called ${LIKE} ?`).join(' AND ');
  const patterns = words.map((word) => `%${plainly(word)}%`);
  const names = await select<{ called: string }>(
    database,
    `SELECT called FROM find_names WHERE business = ? AND ${named} LIMIT ${String(FEW_NAMES + 1)}`,
    [business, ...patterns],
    transaction,
  );
  if (names.length === 0) return [];
  const most = String(MOST_FOUND);
  const each = `(SELECT sale FROM books_sale_lines FORCE INDEX (by_called)
    WHERE business = ? AND called = ? ORDER BY sale DESC LIMIT ${most})`;
  const [query, values] =
    names.length > FEW_NAMES
      ? [
          // Sale by sale, the latest first: turned into a join, all that ever was sold would be read.
          `SET STATEMENT optimizer_switch = 'semijoin=off,exists_to_in=off' FOR
            SELECT s.id AS sale FROM books_sales s FORCE INDEX (PRIMARY) WHERE s.business = ? AND EXISTS (
              SELECT 1 FROM books_sale_lines l WHERE l.business = s.business AND l.sale = s.id AND ${named})
            ORDER BY s.id DESC LIMIT ${most}`,
          [business, ...patterns],
        ]
      : [names.map(() => each).join(' UNION '), names.flatMap(({ called }) => [business, called])];
  const found = await select<{ sale: string }>(database, query, values, transaction);
  return found.map(({ sale }) => sale);
}

/** By who sold, and by who bought: names as they are typed. */
async function people(
  books: BookReader,
  business: string,
  words: readonly string[],
): Promise<Way[]> {
  const staff = await books.rows(business, 'staff', {});
  const sellers = staff.filter(({ name }) => beginsWords(name, words)).map(({ id }) => id);
  const each = words.map(() => `CONCAT_WS(' ', c.name, c.company, c.email, c.phone) ${LIKE} ?`);
  const who = `(SELECT c.id FROM books_customers c WHERE c.business = s.business AND c.isErased = 0 AND ${each.join(' AND ')})`;
  const patterns = words.map((word) => `%${plainly(word)}%`);
  const buyers = boughtBy(who, patterns);
  const several = await withSeveralRecords(books, business, words);
  if (several.length > 0) buyers.push(...boughtBy('(?)', [several]));
  return sellers.length === 0 ? buyers : [['s.`by` IN (?)', [sellers]], ...buyers];
}

/** Bought by one of these, or by one of them in truth where that was booked wrongly. */
const boughtBy = (these: string, values: readonly unknown[]): Way[] => [
  [`s.customer IN ${these}`, values],
  [
    "s.id IN (SELECT k.sale FROM books_corrections k WHERE k.business = s.business AND JSON_VALUE(k.fix, '$.customer') IN " +
      `${these})`,
    values,
  ],
];

/** All records of those people who have several, and of whom any says every word. */
async function withSeveralRecords(
  books: BookReader,
  business: string,
  words: readonly string[],
): Promise<readonly string[]> {
  const joinedTo = { joinedInto: { [Op.ne]: null } };
  const behind = await books.rows(business, 'customers', joinedTo);
  if (behind.length === 0) return [];
  const rows = await recordsAmong(
    books,
    business,
    behind.map(({ id }) => id),
  );
  const joined = new Joined(rows);
  const found = rows.filter(
    ({ isErased, name, company, email, phone }) =>
      !isErased && hasWords([name, company, email, phone], words),
  );
  return [...new Set(found.flatMap(({ id }) => joined.records(id)))];
}

/** Null for a sale that this business has not. */
export async function saleDocument(
  database: Database,
  books: BookReader,
  business: string,
  id: string,
): Promise<SaleDocument | null> {
  return await database.snapshot(async (transaction) => {
    const [sale] = await books.rows(business, 'sales', { id }, transaction);
    if (sale === undefined) return null;
    const parts = { id: [...sale.payments] };
    const unsorted = await books.rows(business, 'payments', parts, transaction);
    const corrections = await books.rows(business, 'corrections', { sale: id }, transaction);
    const asRung = {
      sale,
      lines: await books.rows(business, 'saleLines', { sale: id }, transaction),
      // As they were taken.
      payments: sale.payments.flatMap((part) => unsorted.find((each) => each.id === part) ?? []),
    };
    return {
      ...asCorrected(asRung, corrections),
      corrections,
      voids: await books.rows(business, 'voids', { sale: id }, transaction),
      undone: await books.rows(business, 'voidsUndone', { sale: id }, transaction),
      returns: (await books.rows(business, 'returns', { sale: id }, transaction)).sort((a, b) =>
        a.at < b.at ? -1 : 1,
      ),
      refunds: await books.rows(
        business,
        'cardRefunds',
        { payment: [...sale.payments] },
        transaction,
      ),
      payers: await books.rows(business, 'payers', parts, transaction),
    };
  });
}
