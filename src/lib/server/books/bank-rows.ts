/** The rows that the bank page is worked out from, out of the server's books, all of one moment. */
import { Op, type Transaction } from 'sequelize';
import { bankLinesOf, type BankLineNow } from '../../core/bank/bank-lines';
import type { BankNow } from '../../core/bank/bank-now';
import { AFTER_DAYS, BEFORE_DAYS, dueCostsOf, proposeCosts } from '../../core/bank/due-costs';
import { alreadyCame, proposeBank } from '../../core/bank/match-bank';
import { openMoneyOf, type OpenRows } from '../../core/bank/open-money';
import type { KnownLine } from '../../core/bank/take-statement';
import type { Row } from '../../core/books/tables';
import { firstDay, lastDay } from '../../core/event/todays-event';
import { standing } from '../../core/settle/standing';
import { sqlTable } from '../database/book-tables';
import type { Database } from '../database/database';
import { select } from '../database/select';
import type { BookReader } from './read-books';
import { movedSales, salesMoved } from './moved-sales';

/** How far back money is looked for that has not come, or has no line. */
const MONTHS_DAYS = 200;
/** How many lines that are done with are shown at a time. */
const DONE_AT_ONCE = 40;
const MOST_OPEN = 500;
const DAY = 86_400_000;

interface Reading {
  readonly database: Database;
  readonly books: BookReader;
  readonly business: string;
  readonly transaction: Transaction;
}

/**
 * @param before Lines that are done with and are older than this one, by day and id; empty for the latest.
 * @param now Milliseconds since 1970.
 */
export async function bankNow(
  database: Database,
  books: BookReader,
  business: string,
  before: string,
  now: number,
): Promise<BankNow> {
  return await database.snapshot(async (transaction) => {
    const reading: Reading = { database, books, business, transaction };
    const since = new Date(now - MONTHS_DAYS * DAY).toISOString().slice(0, 10);
    const ids = await lineIds(reading, before);
    const lines = await inOrder(reading, [...ids.open, ...ids.done]);
    const joins = await joinsOf(reading, 'line', [...lines.keys()]);
    const joined = [...new Set(joins.flatMap(({ money }) => money ?? []))];
    const undone = await undoneOf(reading, joined);
    const linesOf = (these: readonly string[]): readonly BankLineNow[] =>
      bankLinesOf(
        these.flatMap((id) => lines.get(id) ?? []),
        joins,
        undone,
      );
    const open = linesOf(ids.open).filter(({ left }) => left !== 0);
    const rows = await openRows(reading, since);
    const money = openMoneyOf(rows);
    const written = await writtenOf(reading, joined);
    const named = new Set([
      ...money.flatMap(({ events }) => events),
      ...written.flatMap(({ event }) => event ?? []),
    ]);
    const events = await books.rows(
      business,
      'events',
      { [Op.or]: [{ id: [...named] }, { setStamp: { [Op.ne]: '' } }] },
      transaction,
    );
    return {
      business,
      accounts: await books.rows(business, 'bankAccounts', {}, transaction),
      open,
      done: linesOf(ids.done),
      older: ids.older,
      money,
      proposals: proposeBank(open, money),
      costs: await costsOf(reading, events, open, now),
      already: alreadyCame(open, rows.came),
      written,
      events: events
        .map(({ id, name, days }) => ({ id, name, day: days[0]?.date ?? '' }))
        .filter(({ day }) => day !== '')
        .sort((a, b) => (a.day < b.day ? 1 : -1)),
    };
  });
}

/** Only where something went that nobody has said of: of events of those days. */
async function costsOf(
  reading: Reading,
  events: readonly Row<'events'>[],
  lines: readonly BankLineNow[],
  now: number,
): Promise<BankNow['costs']> {
  const { books, business, transaction } = reading;
  const went = lines.filter(({ left }) => left < 0);
  const days = went.map(({ day }) => Date.parse(day)).sort((a, b) => a - b);
  const [first = now, last = now] = [days[0], days.at(-1)];
  const near = events.filter(
    (event) =>
      event.setStamp !== '' &&
      event.days.length > 0 &&
      Date.parse(lastDay(event)) >= first - AFTER_DAYS * DAY &&
      Date.parse(firstDay(event)) <= last + BEFORE_DAYS * DAY,
  );
  if (went.length === 0 || near.length === 0) return [];
  const of = { event: near.map(({ id }) => id) };
  const paid = await books.rows(business, 'paidOut', of, transaction);
  const undone = await undoneOf(
    reading,
    paid.map(({ id }) => id),
  );
  const due = dueCostsOf({
    events: near,
    totals: await books.rows(business, 'eventTotals', of, transaction),
    paid: standing(paid, undone),
    cashMoves: (await books.rows(business, 'cashMoves', of, transaction)).map(
      ({ photo: _photo, ...move }) => move,
    ),
  });
  return proposeCosts(went, due);
}

/** Lines that there are of these accounts, as far as a file is compared with them. */
export async function knownLines(
  database: Database,
  business: string,
  from: string,
  to: string,
): Promise<readonly KnownLine[]> {
  const rows = await select<Omit<KnownLine, 'amount'> & { amount: string }>(
    database,
    `SELECT id, account, day, amount, source FROM ${sqlTable('bankLines')} ` +
      'WHERE business = ? AND day BETWEEN ? AND ? ORDER BY id',
    [business, from, to],
  );
  return rows.map((row) => ({ ...row, amount: Number(row.amount) }));
}

/** Which lines have something left, and which of the others are looked at. */
async function lineIds({ database, business, transaction }: Reading, before: string) {
  const summed = (having: string, more: string, values: readonly unknown[], order: string) =>
    select<{ id: string }>(
      database,
      `SELECT l.id FROM ${sqlTable('bankLines')} l ` +
        `LEFT JOIN ${sqlTable('bankJoins')} j ON j.business = l.business AND j.line = l.id ` +
        `AND (j.money IS NULL OR NOT EXISTS (SELECT 1 FROM ${sqlTable('moneyUndone')} u ` +
        'WHERE u.business = j.business AND u.money = j.money)) ' +
        `WHERE l.business = ? AND l.setStamp <> '' ${more} GROUP BY l.id, l.day, l.amount ` +
        `HAVING COALESCE(SUM(j.amount), 0) ${having} l.amount ORDER BY l.day DESC, l.id DESC ${order}`,
      [business, ...values],
      transaction,
    );
  const [day = '', id = ''] = before.split(' ');
  const open = await summed('<>', '', [], `LIMIT ${String(MOST_OPEN)}`);
  const isOlder = before === '' ? '' : 'AND (l.day < ? OR (l.day = ? AND l.id < ?))';
  const done = await summed('=', isOlder, before === '' ? [] : [day, day, id], '');
  return {
    open: open.map((row) => row.id),
    done: done.slice(0, DONE_AT_ONCE).map((row) => row.id),
    older: Math.max(0, done.length - DONE_AT_ONCE),
  };
}

async function inOrder(
  { books, business, transaction }: Reading,
  ids: readonly string[],
): Promise<ReadonlyMap<string, Row<'bankLines'>>> {
  if (ids.length === 0) return new Map();
  const rows = await books.rows(business, 'bankLines', { id: [...ids] }, transaction);
  return new Map(rows.map((row) => [row.id, row]));
}

const joinsOf = async (
  { books, business, transaction }: Reading,
  by: 'line' | 'money',
  ids: readonly string[],
): Promise<Row<'bankJoins'>[]> =>
  ids.length === 0 ? [] : await books.rows(business, 'bankJoins', { [by]: [...ids] }, transaction);

async function undoneOf(
  { books, business, transaction }: Reading,
  money: readonly string[],
): Promise<ReadonlySet<string>> {
  if (money.length === 0) return new Set();
  const rows = await books.rows(business, 'moneyUndone', { money: [...money] }, transaction);
  return new Set(rows.map((row) => row.money));
}

async function writtenOf(
  { books, business, transaction }: Reading,
  ids: readonly string[],
): Promise<BankNow['written']> {
  if (ids.length === 0) return [];
  const came = await books.rows(business, 'moneyCame', { id: [...ids] }, transaction);
  const paid = await books.rows(business, 'paidOut', { id: [...ids] }, transaction);
  return [
    ...came.map(({ id, event, amount, fees, from, what, at }) => ({
      ...{ is: 'came' as const, id, event, amount, fees, from, what, at },
    })),
    ...paid.map(({ id, event, for: why, whom, amount, from, what, at }) => ({
      ...{ is: 'paid' as const, id, event, for: why, whom, amount, from, what, at },
    })),
  ];
}

/** What is still to come or to go, of all events, and what was noted lately and has no line. */
async function openRows(reading: Reading, since: string): Promise<OpenRows> {
  const { database, books, business, transaction } = reading;
  const accounts = (
    await books.rows(
      business,
      'eventAccounts',
      {
        amount: { [Op.gt]: 0 },
        [Op.or]: [{ account: { [Op.like]: 'owed:%' } }, { account: { [Op.like]: 'bag:%' } }],
      },
      transaction,
    )
  ).filter(({ event }) => event !== '');
  const ways = await books.rows(business, 'ways', {}, transaction);
  const events = [...new Set(accounts.map(({ event }) => event))];
  const ofEvents = { event: events };
  const cardLines = await books.rows(
    business,
    'cardLines',
    { payout: { [Op.ne]: '' }, day: { [Op.gte]: since } },
    transaction,
  );
  const cardJoins =
    cardLines.length === 0
      ? []
      : await books.rows(business, 'cardJoins', { id: cardLines.map(({ id }) => id) }, transaction);
  const references = new Set([
    ...cardLines.map(({ reference }) => reference),
    ...cardJoins.flatMap(({ payment }) => payment ?? []),
  ]);
  const cards =
    references.size === 0
      ? []
      : await select<{ id: string; event: string | null; way: string }>(
          database,
          // What went onto a card that had paid for nothing is called by its own id.
          (['cardPayments', 'cardRefunds'] as const)
            .map(
              (table) =>
                `SELECT id, event, way FROM ${sqlTable(table)} WHERE business = ? AND id IN (?)`,
            )
            .join(' UNION ALL '),
          [business, [...references], business, [...references]],
          transaction,
        );
  // Of sales that were moved to another event, wherever they were rung up.
  const { parts: moved } = await movedSales(
    reading,
    await salesMoved(database, business, null, transaction),
  );
  const elsewhere = ways.flatMap(({ id, method }) =>
    method === 'cheque' || method === 'transfer' || method === 'own' ? id : [],
  );
  const payments =
    elsewhere.length === 0 || events.length === 0
      ? []
      : [
          ...(
            await books.rows(business, 'payments', { ...ofEvents, way: elsewhere }, transaction)
          ).filter(({ id }) => !moved.has(id)),
          ...[...moved.values()].filter(
            ({ event, way }) => events.includes(event ?? '') && elsewhere.includes(way),
          ),
        ];
  const back = new Set(
    payments.length === 0
      ? []
      : (
          await books.rows(
            business,
            'reversals',
            { payment: payments.map(({ id }) => id) },
            transaction,
          )
        ).map(({ payment }) => payment),
  );
  const bagged = [
    ...new Set(accounts.flatMap(({ event, account }) => (account.startsWith('bag:') ? event : []))),
  ];
  const came = await standingRows(reading, 'moneyCame', since);
  const paid = (await standingRows(reading, 'paidOut', since)).filter(
    ({ from }) => from === 'bank',
  );
  return {
    accounts,
    ways,
    cardLines,
    cardJoins,
    cards: cards.map((card) => ({ ...card, event: moved.get(card.id)?.event ?? card.event })),
    payments: payments.filter(({ id }) => !back.has(id)),
    handedIn:
      events.length === 0 ? [] : await books.rows(business, 'handedIn', ofEvents, transaction),
    cashMoves: (bagged.length === 0
      ? []
      : await books.rows(business, 'cashMoves', { event: bagged }, transaction)
    ).map(({ photo: _photo, ...move }) => move),
    drawerReads:
      bagged.length === 0
        ? []
        : await books.rows(business, 'drawerReads', { event: bagged }, transaction),
    came,
    paid,
    joins: await joinsOf(
      reading,
      'money',
      [...came, ...paid].map(({ id }) => id),
    ),
  };
}

async function standingRows<T extends 'moneyCame' | 'paidOut'>(
  reading: Reading,
  table: T,
  since: string,
): Promise<readonly (Row<T> & { readonly id: string })[]> {
  const { books, business, transaction } = reading;
  const rows = (await books.rows(
    business,
    table,
    { at: { [Op.gte]: since } },
    transaction,
  )) as unknown as readonly (Row<T> & { readonly id: string })[];
  const undone = await undoneOf(
    reading,
    rows.map(({ id }) => id),
  );
  return standing(rows, undone);
}
