/** What was sold at an event line by line, as it stands after what came back and what was put right: for settling. */
import { Op, type Transaction } from 'sequelize';
import type { Row } from '../../core/books/tables';
import { jsonOrNull } from '../../core/formats/json-or-null';
import { sum } from '../../core/money/units';
import { asCorrected, type Correctable } from '../../core/sale/corrections';
import { linesBack } from '../../core/sale/return-figures';
import { makersGoods } from '../../core/settle/makers-share';
import type { SettlingRows } from '../../core/settle/rows';
import { sqlTable } from '../database/book-tables';
import type { Database } from '../database/database';
import { select } from '../database/select';
import { asTheyStand } from './moved-sales';
import type { BookReader } from './read-books';

/** Whose books are read, for which event, at which moment. */
export interface Reading {
  readonly database: Database;
  readonly books: BookReader;
  readonly business: string;
  readonly event: string;
  readonly transaction: Transaction;
}

/** Makers' lines, and what is not listed, by its price: one scan of the lines for both. */
export async function oddLines(
  { database, business, event, transaction }: Reading,
  off: ReadonlySet<string>,
  back: readonly Row<'saleLines'>[],
  here: readonly Row<'saleLines'>[],
): Promise<Pick<SettlingRows, 'makerLines' | 'unlisted'>> {
  const rows = await select<{
    sale: string;
    item: string | null;
    maker: string | null;
    name: string;
    detail: string;
    price: string;
    quantity: string;
    total: string;
    tax: string;
  }>(
    database,
    'SELECT sale, item, maker, name, detail, price, quantity, total, tax ' +
      `FROM ${sqlTable('saleLines')} ` +
      'WHERE business = ? AND event = ? AND (maker IS NOT NULL OR item IS NULL) AND account IS NULL',
    [business, event],
    transaction,
  );
  const standing = rows.filter(({ sale }) => !off.has(sale));
  const unlisted = new Map<number, number>();
  for (const { item, price, quantity } of [...standing, ...here.filter(isOfGoods)])
    if (item === null)
      unlisted.set(Number(price), (unlisted.get(Number(price)) ?? 0) + Number(quantity));
  return {
    makerLines: [
      ...standing.flatMap(({ quantity, total, tax, ...line }) =>
        makersGoods({
          ...line,
          ...{ quantity: Number(quantity), total: Number(total) },
          tax: (jsonOrNull(tax) ?? {}) as Record<string, number>,
        }),
      ),
      ...[...back, ...here.filter(isOfGoods)].flatMap(makersGoods),
    ],
    unlisted: [...unlisted].map(([price, quantity]) => ({ price, quantity })),
  };
}

const isOfGoods = ({ account }: Row<'saleLines'>): boolean => account == null;

interface CameBack {
  readonly sales: ReadonlyMap<string, string | null>;
  readonly lines: readonly Row<'saleLines'>[];
}

/** What came back here of sales, wherever they were, as lines below nothing; and who had sold it. */
export async function cameBack({
  books,
  business,
  event,
  transaction,
}: Reading): Promise<CameBack> {
  const returns = await books.rows(business, 'returns', { event }, transaction);
  if (returns.length === 0) return { sales: new Map(), lines: [] };
  const of = [...new Set(returns.map(({ sale }) => sale))];
  const sales = await books.rows(business, 'sales', { id: of }, transaction);
  const now = await asTheyStand({ books, business, transaction }, sales);
  return {
    sales: new Map(sales.map(({ id, by }) => [id, by])),
    lines: linesBack(
      returns,
      now.flatMap(({ lines }) => lines),
    ),
  };
}

/** What came back is not sold: off the sum of whoever had sold it. */
export const sellersBack = ({ sales, lines }: CameBack): SettlingRows['sellers'] =>
  lines.flatMap(({ sale, seller: own, ...line }) => {
    const seller = own ?? sales.get(sale) ?? null;
    return seller === null ? [] : { seller, net: netOfLine(line) };
  });

/** What was sold here although it was rung up elsewhere: on the sum of whoever sold it. */
export const sellersHere = (here: readonly Correctable[]): SettlingRows['sellers'] =>
  here.flatMap(({ sale, lines }) =>
    lines.flatMap(({ seller: own, ...line }) => {
      const seller = own ?? sale.by;
      return seller === null ? [] : { seller, net: netOfLine(line) };
    }),
  );

/** What is paid in on an account is not sold. */
const netOfLine = ({
  total,
  tax,
  account,
}: Pick<Row<'saleLines'>, 'total' | 'tax' | 'account'>): number =>
  account == null ? total - sum(Object.values(tax)) : 0;

/** Lines that somebody else sold than rang them up: off the sum of the one, and on that of the other. */
export async function sellersOfLines(
  { books, business, event, transaction }: Reading,
  off: ReadonlySet<string>,
  corrections: readonly Row<'corrections'>[],
): Promise<SettlingRows['sellers']> {
  const said = { event, seller: { [Op.ne]: null } };
  const own = await books.rows(business, 'saleLines', said, transaction);
  const put = corrections.flatMap(({ fix, sale }) => (fix.is === 'seller' ? sale : []));
  const ids = [...new Set([...own.map(({ sale }) => sale), ...put])].filter((id) => !off.has(id));
  if (ids.length === 0) return [];
  const sales = await books.rows(business, 'sales', { id: ids }, transaction);
  const lines = await books.rows(business, 'saleLines', { sale: ids }, transaction);
  return sales.flatMap((sale) => {
    const rung = { sale, lines: lines.filter((line) => line.sale === sale.id), payments: [] };
    return asCorrected(rung, corrections).lines.flatMap(({ seller, ...line }) => {
      if (seller === null || seller === sale.by) return [];
      const net = netOfLine(line);
      return [...(sale.by === null ? [] : [{ seller: sale.by, net: 0 - net }]), { seller, net }];
    });
  });
}

/** Lines that were of another item than was rung up: what was rung up below nothing, and what it was. */
export async function linesPutRight(
  { books, business, transaction }: Reading,
  off: ReadonlySet<string>,
  corrections: readonly Row<'corrections'>[],
): Promise<Row<'saleLines'>[]> {
  const of = corrections.filter(({ fix, sale }) => fix.is === 'item' && !off.has(sale));
  if (of.length === 0) return [];
  const ids = [...new Set(of.map(({ sale }) => sale))];
  const sales = await books.rows(business, 'sales', { id: ids }, transaction);
  const lines = await books.rows(business, 'saleLines', { sale: ids }, transaction);
  return sales.flatMap((sale) => {
    const rung = { sale, lines: lines.filter((line) => line.sale === sale.id), payments: [] };
    const now = asCorrected(rung, of).lines;
    return rung.lines.flatMap((line, at) => {
      const is = now[at];
      return is === undefined || is.item === line.item ? [] : [belowNothing(line), is];
    });
  });
}

const belowNothing = (line: Row<'saleLines'>): Row<'saleLines'> => ({
  ...line,
  quantity: 0 - line.quantity,
  total: 0 - line.total,
  tax: Object.fromEntries(Object.entries(line.tax).map(([id, amount]) => [id, 0 - amount])),
});

/** What each sold, of sales that stand: lines without tax, and without the service charge. */
export async function sellersOf(
  { database, business, event, transaction }: Reading,
  off: ReadonlySet<string>,
): Promise<SettlingRows['sellers']> {
  const rows = await select<{ seller: string; net: string }>(
    database,
    'SELECT `by` AS seller, SUM(total - tax - (service - serviceTax) - paidIn) AS net ' +
      `FROM ${sqlTable('sales')} WHERE business = ? AND event = ? AND \`by\` IS NOT NULL ` +
      `${off.size === 0 ? '' : 'AND id NOT IN (?) '}GROUP BY \`by\` ORDER BY \`by\``,
    [business, event, ...(off.size === 0 ? [] : [[...off]])],
    transaction,
  );
  return rows.map(({ seller, net }) => ({ seller, net: Number(net) }));
}
