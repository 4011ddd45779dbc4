/** The documents behind a row of the settling page: parts of payments, lines of sales and what came back of either, the latest first. */
import type { Transaction } from 'sequelize';
import type { Row } from '../../core/books/tables';
import { sum } from '../../core/money/units';
import { changeOf, partsPutRight } from '../../core/sale/corrections';
import { standingVoids } from '../../core/loose-end/voided-twice';
import { linesBack } from '../../core/sale/return-figures';
import {
  BEHIND_AT_ONCE,
  type Behind,
  type BehindDocument,
  type BehindPage,
} from '../../core/settle/behind-row';
import { sqlTable } from '../database/book-tables';
import type { Database } from '../database/database';
import { select } from '../database/select';
import { BookReader } from './read-books';
import { awayFrom, movedSales, salesMoved, soldHere, type MovedSales } from './moved-sales';

interface Asked {
  readonly business: string;
  readonly event: string;
  readonly of: Behind;
  /** The drawer, way or item. */
  readonly id: string;
  /** Where the page before ended; empty for the first. */
  readonly after: string;
}

export async function behindRow(database: Database, asked: Asked): Promise<BehindPage> {
  return await database.snapshot(async (transaction) => {
    const moved = await movesAt(database, asked, transaction);
    const [out, back] =
      asked.of === 'item'
        ? [
            await linesOf(database, asked, awayFrom(moved, asked.event), transaction),
            [...(await linesBackOf(database, asked, transaction)), ...linesHere(asked, moved)],
          ]
        : [
            await partsOf(database, asked, moved, transaction),
            [
              ...(await givenBackOf(database, asked, transaction)),
              ...(await refundsOf(database, asked, transaction)),
              ...(await putRightOf(database, asked, moved, transaction)),
              ...partsHere(asked, moved),
            ],
          ];
    const rows = [...out, ...back].sort((a, b) => (a.key < b.key ? 1 : -1));
    const documents = rows.slice(0, BEHIND_AT_ONCE);
    const last = documents.at(-1);
    return {
      documents: documents.map(({ key: _key, ...document }) => document),
      next: rows.length > BEHIND_AT_ONCE && last !== undefined ? last.key : '',
    };
  });
}

type Found = BehindDocument & { readonly key: string };

type FoundReturn = Pick<
  Row<'returns'>,
  'id' | 'at' | 'by' | 'sale' | 'number' | 'lines' | 'takes' | 'money'
>;

/** What was given back out of a drawer or by a way; below nothing, as it makes the row less. */
async function givenBackOf(
  database: Database,
  { business, event, of, id, after }: Asked,
  transaction: Transaction,
): Promise<readonly Found[]> {
  const rows = await select<FoundReturn>(
    database,
    `SELECT id, at, \`by\`, sale, number, money FROM ${sqlTable('returns')} ` +
      'WHERE business = ? AND event = ? AND JSON_CONTAINS(money, ?) ' +
      `${after === '' ? '' : 'AND id < ? '}ORDER BY id DESC LIMIT ${String(BEHIND_AT_ONCE + 1)}`,
    [business, event, JSON.stringify({ [of]: id }), ...(after === '' ? [] : [after])],
    transaction,
  );
  return rows.map(({ id: key, at, by, sale, number, money }) => ({
    ...{ key, sale, number, at, by, quantity: null, isBack: false },
    amount:
      0 -
      sum(
        parsed(money).flatMap(({ way, drawer, amount }) =>
          (of === 'way' ? way : drawer) === id ? amount : [],
        ),
      ),
  }));
}

/** What was given back without a sale; it has no page of a sale to open. */
async function refundsOf(
  database: Database,
  { business, event, of, id, after }: Asked,
  transaction: Transaction,
): Promise<readonly Found[]> {
  if (of === 'item') return [];
  const rows = await select<
    Pick<Row<'refunds'>, 'id' | 'at' | 'by' | 'number'> & { given: string }
  >(
    database,
    "SELECT id, at, `by`, number, JSON_VALUE(money, '$.amount') AS given " +
      `FROM ${sqlTable('refunds')} WHERE business = ? AND event = ? AND ${of} = ? ` +
      `${after === '' ? '' : 'AND id < ? '}ORDER BY id DESC LIMIT ${String(BEHIND_AT_ONCE + 1)}`,
    [business, event, id, ...(after === '' ? [] : [after])],
    transaction,
  );
  return rows.map(({ id: key, at, by, number, given }) => ({
    ...{ key, sale: null, number, at, by, quantity: null, isBack: false },
    amount: 0 - Number(given),
  }));
}

/** Parts that were paid another way than was tapped: off the row of the one, and on that of the other. */
async function putRightOf(
  database: Database,
  { business, event, of, id, after }: Asked,
  { parts: moved }: Moves,
  transaction: Transaction,
): Promise<readonly Found[]> {
  const rows = await select<
    Pick<Row<'corrections'>, 'id' | 'at' | 'by' | 'sale' | 'saleNumber' | 'stamp'> & {
      fix: Row<'corrections'>['fix'] | string;
    }
  >(
    database,
    `SELECT id, at, \`by\`, sale, saleNumber, stamp, fix FROM ${sqlTable('corrections')} ` +
      "WHERE business = ? AND event = ? AND JSON_VALUE(fix, '$.is') IN ('way', 'change')",
    [business, event],
    transaction,
  );
  if (rows.length === 0) return [];
  // What was moved stands elsewhere, or here as it was put right.
  const corrections = rows
    .map((row) => ({ ...row, fix: parsed(row.fix) }))
    .filter(({ fix }) => !('part' in fix && moved.has(fix.part)));
  if (corrections.length === 0) return [];
  const parts = await select<{
    id: string;
    way: string;
    drawer: string | null;
    amount: string;
    change: string;
  }>(
    database,
    'SELECT id, way, drawer, charge + surcharge + tip - `change` AS amount, `change` ' +
      `FROM ${sqlTable('payments')} WHERE business = ? AND id IN (?)`,
    [business, corrections.flatMap(({ fix }) => ('part' in fix ? fix.part : []))],
    transaction,
  );
  const isOf = (part: { readonly way: string; readonly drawer: string | null }): boolean =>
    (of === 'way' ? part.way : part.drawer) === id;
  const asNumbers = parts.map((part) => ({
    ...part,
    amount: Number(part.amount),
    change: Number(part.change),
  }));
  return partsPutRight(asNumbers, corrections).flatMap((put): Found[] => {
    const { correction, before, after: now, moreChange } = put;
    const amount = (isOf(now) ? now.amount : 0) - (isOf(before) ? before.amount : 0);
    const handed = of === 'drawer' && isOf(now) ? moreChange : 0;
    if (amount - handed === 0 || (after !== '' && correction.id >= after)) return [];
    const { id: key, sale, saleNumber: number, at, by } = correction;
    return [{ key, sale, number, at, by, quantity: null, isBack: false, amount: amount - handed }];
  });
}

interface Moves extends MovedSales {
  readonly isVoid: ReadonlySet<string>;
}

/** Sales that were said to be of another event: from here, or to here. */
async function movesAt(
  database: Database,
  { business, event }: Asked,
  transaction: Transaction,
): Promise<Moves> {
  const of = [...(await salesMoved(database, business, event, transaction))];
  const books = new BookReader(database);
  const moved = await movedSales({ books, business, transaction }, of);
  if (of.length === 0) return { ...moved, isVoid: new Set() };
  const voids = await books.rows(business, 'voids', { sale: of }, transaction);
  const undone = await books.rows(business, 'voidsUndone', { sale: of }, transaction);
  return { ...moved, isVoid: new Set(standingVoids(voids, undone).map(({ sale }) => sale)) };
}

/** Lines of what was sold here although it was rung up elsewhere. */
const linesHere = ({ id, event, after }: Asked, moved: Moves): readonly Found[] =>
  soldHere(moved, event).flatMap(({ sale, lines }) =>
    lines.flatMap((line): Found[] => {
      const key = lineKey(sale.id, line.line);
      if (line.item !== id || (after !== '' && key >= after)) return [];
      const { number, at, by } = sale;
      const { total: amount, quantity } = line;
      const isBack = moved.isVoid.has(sale.id);
      return [{ key, sale: sale.id, number, at, by, amount, quantity, isBack }];
    }),
  );

type Placed = Pick<Row<'payments'>, 'event' | 'way' | 'drawer'>;

/** Whether a part is in the row that is asked for. */
const isInRow = ({ of, id, event }: Asked, part: Placed | undefined): boolean =>
  part !== undefined && part.event === event && (of === 'way' ? part.way : part.drawer) === id;

/** What paid for such sales, and is in this row although it was not when it was taken. */
function partsHere(asked: Asked, { now, taken, isVoid }: Moves): readonly Found[] {
  const before = new Map(taken.map((part) => [part.id, part]));
  return now.flatMap((of) =>
    of.payments.flatMap((part): Found[] => {
      const { id: key, at, by, charge, surcharge, tip } = part;
      const isNew = isInRow(asked, part) && !isInRow(asked, before.get(key));
      if (!isNew || (asked.after !== '' && key >= asked.after)) return [];
      const { id: sale, number } = of.sale;
      const amount = charge + surcharge + tip - changeOf(part, of);
      return [{ key, sale, number, at, by, amount, quantity: null, isBack: isVoid.has(sale) }];
    }),
  );
}

/** Lines of an item that came back at the event. */
async function linesBackOf(
  database: Database,
  { business, event, id, after }: Asked,
  transaction: Transaction,
): Promise<readonly Found[]> {
  const [last = '', line = '0'] = after.split(' ');
  const rows = await select<FoundReturn & { line: string; sold: string; total: string }>(
    database,
    'SELECT r.id, r.at, r.`by`, r.sale, r.number, r.`lines`, r.takes, l.line, l.quantity AS sold, l.total ' +
      `FROM ${sqlTable('returns')} r JOIN ${sqlTable('saleLines')} l ` +
      'ON l.business = r.business AND l.sale = r.sale ' +
      'WHERE r.business = ? AND r.event = ? AND l.item = ? ' +
      "AND JSON_CONTAINS(r.`lines`, JSON_OBJECT('line', l.line)) " +
      (after === '' ? '' : 'AND (r.id < ? OR (r.id = ? AND l.line < ?)) ') +
      `ORDER BY r.id DESC, l.line DESC LIMIT ${String(BEHIND_AT_ONCE + 1)}`,
    [business, event, id, ...(after === '' ? [] : [last, last, Number(line)])],
    transaction,
  );
  return rows.flatMap(({ id: key, at, by, sale, number, line: nth, sold, total, lines, takes }) => {
    const of = Number(nth);
    const [back] = linesBack(
      [{ sale, lines: parsed(lines).filter((each) => each.line === of), takes: parsed(takes) }],
      [{ sale, line: of, quantity: Number(sold), total: Number(total), tax: {} }],
    );
    if (back === undefined) return [];
    return {
      ...{ key: lineKey(key, of), sale, number, at, by, isBack: false },
      ...{ amount: back.total, quantity: back.quantity },
    };
  });
}

/** MariaDB hands JSON out as text. */
const parsed = <T extends object>(value: T | string): T =>
  typeof value === 'string' ? (JSON.parse(value) as T) : value;

/** Sorts as what it is made of. */
const lineKey = (id: string, line: number): string => `${id} ${String(line).padStart(3, '0')}`;

/** Ids grow with time, and the key of every index ends with them: the latest are read from its end. */
async function partsOf(
  database: Database,
  asked: Asked,
  { parts: moved }: Moves,
  transaction: Transaction,
): Promise<readonly Found[]> {
  const { business, event, of, id, after } = asked;
  const parts = await select<{
    id: string;
    slip: string;
    at: string;
    by: string | null;
    reference: string;
    amount: string;
  }>(
    database,
    'SELECT id, slip, at, `by`, reference, charge + surcharge + tip - `change` AS amount ' +
      `FROM ${sqlTable('payments')} FORCE INDEX (by_event) WHERE business = ? AND event = ? AND ${of} = ? ` +
      `${after === '' ? '' : 'AND id < ? '}ORDER BY id DESC LIMIT ${String(BEHIND_AT_ONCE + 1)}`,
    [business, event, id, ...(after === '' ? [] : [after])],
    transaction,
  );
  if (parts.length === 0) return [];
  const slips = parts.map(({ slip }) => slip);
  const sales = await select<{ id: string; slip: string; number: string; isVoid: number }>(
    database,
    `SELECT id, slip, number, ${IS_VOID} AS isVoid FROM ${sqlTable('sales')} s ` +
      'WHERE business = ? AND slip IN (?)',
    [business, slips],
    transaction,
  );
  const back = await select<{ payment: string }>(
    database,
    `SELECT payment FROM ${sqlTable('reversals')} WHERE business = ? AND payment IN (?)`,
    [business, parts.map((part) => part.id)],
    transaction,
  );
  const gone = new Set(back.map(({ payment }) => payment));
  const isElsewhere = (part: Row<'payments'> | undefined): boolean =>
    part !== undefined && !isInRow(asked, part);
  return parts.map(({ id: key, slip, at, by, reference, amount }) => {
    const sale = sales.find((each) => each.slip === slip);
    return {
      ...{ key, sale: sale?.id ?? null, at, by, amount: Number(amount), quantity: null },
      number: sale?.number ?? reference,
      isBack: gone.has(key) || sale?.isVoid === 1 || isElsewhere(moved.get(key)),
    };
  });
}

const IS_VOID =
  `EXISTS (SELECT 1 FROM ${sqlTable('voids')} v WHERE v.business = s.business AND v.sale = s.id ` +
  `AND NOT EXISTS (SELECT 1 FROM ${sqlTable('voidsUndone')} u WHERE u.business = v.business AND u.void = v.id))`;

async function linesOf(
  database: Database,
  { business, event, id, after }: Asked,
  away: ReadonlySet<string>,
  transaction: Transaction,
): Promise<readonly Found[]> {
  const [sale = '', line = '0'] = after.split(' ');
  const rows = await select<{
    sale: string;
    line: number;
    number: string;
    at: string;
    by: string | null;
    amount: string;
    quantity: string;
    isVoid: number;
  }>(
    database,
    // First which lines, off the end of the event's index: left alone, the join reads and sorts all sales there are.
    `SELECT l.sale, l.line, s.number, s.at, s.\`by\`, l.total AS amount, l.quantity, ${IS_VOID} AS isVoid ` +
      `FROM (SELECT sale, line, total, quantity FROM ${sqlTable('saleLines')} FORCE INDEX (by_event) ` +
      'WHERE business = ? AND event = ? AND item = ? ' +
      (after === '' ? '' : 'AND (sale < ? OR (sale = ? AND line < ?)) ') +
      `ORDER BY sale DESC, line DESC LIMIT ${String(BEHIND_AT_ONCE + 1)}) l ` +
      `JOIN ${sqlTable('sales')} s ON s.business = ? AND s.id = l.sale ORDER BY l.sale DESC, l.line DESC`,
    [business, event, id, ...(after === '' ? [] : [sale, sale, Number(line)]), business],
    transaction,
  );
  return rows.map((row) => ({
    key: lineKey(row.sale, row.line),
    ...{ sale: row.sale, number: row.number, at: row.at, by: row.by },
    ...{ amount: Number(row.amount), quantity: Number(row.quantity) },
    isBack: row.isVoid === 1 || away.has(row.sale),
  }));
}
