/** The rows that settling an event is worked out from, out of the server's books, all of one moment. */
import { Op } from 'sequelize';
import { NO_EVENT } from '../../core/books/names';
import type { Row, TableName } from '../../core/books/tables';
import { jsonOrNull } from '../../core/formats/json-or-null';
import { firstDay, lastDay } from '../../core/event/todays-event';
import { standingVoids } from '../../core/loose-end/voided-twice';
import { takingsOfPart } from '../../core/payment/part-sums';
import { standing } from '../../core/settle/standing';
import type { SettlingDevice, SettlingRows } from '../../core/settle/rows';
import { sqlTable } from '../database/book-tables';
import { isOpen, ordersNow } from '../../core/order/order-state';
import { TO_BE_SEEN_LIST, whySchema } from '../daybook/kept';
import type { Database } from '../database/database';
import { select } from '../database/select';
import { awayFrom, movedSales, soldHere, type MovedSales } from './moved-sales';
import type { BookReader } from './read-books';
import {
  cameBack,
  linesPutRight,
  oddLines,
  sellersBack,
  sellersHere,
  sellersOf,
  sellersOfLines,
  type Reading,
} from './settling-lines';

/** @param now Milliseconds since 1970. @returns Null for an event that there is not. */
export async function settlingRows(
  database: Database,
  books: BookReader,
  business: string,
  id: string,
  now: number,
): Promise<SettlingRows | null> {
  return await database.snapshot(async (transaction) => {
    const reading: Reading = { database, books, business, event: id, transaction };
    const all = async <T extends TableName>(table: T): Promise<Row<T>[]> =>
      await books.rows(business, table, { event: id }, transaction);
    const [event] = await books.rows(business, 'events', { id }, transaction);
    if (event === undefined || event.setStamp === '') return null;
    const [totals] = await all('eventTotals');
    const drawers = await all('drawers');
    const voids = await all('voids');
    const corrections = await all('corrections');
    const moved = await movedSales(
      reading,
      corrections.flatMap(({ sale, fix }) => (fix.is === 'event' ? sale : [])),
    );
    const came = soldHere(moved, id);
    const isVoid = new Set(standingVoids(voids, await all('voidsUndone')).map(({ sale }) => sale));
    const off = new Set([...isVoid, ...awayFrom(moved, id)]);
    const here = came.filter(({ sale }) => !isVoid.has(sale.id));
    // What was put right of those is in their lines already.
    const putRight = corrections.filter(({ sale: of }) => came.every(({ sale }) => sale.id !== of));
    const cards = await cardsAt(reading, await all('cardPayments'), moved);
    const accounts = await all('eventAccounts');
    const sold = await soldOf(reading);
    const back = await cameBack(reading);
    const refunds = await books.rows(
      business,
      'cardRefunds',
      { [Op.or]: [{ event: id }, { payment: cards.map((card) => card.id) }] },
      transaction,
    );
    // What went onto a card that had paid for nothing is called by its own id.
    const onto = refunds.flatMap((each) => (each.id === each.payment ? each.id : []));
    const lines = await cardLines(reading, event, [...cards.map((card) => card.id), ...onto]);
    const staffPay = await books.rows(business, 'staffPay', {}, transaction);
    const undone = new Set((await all('moneyUndone')).map(({ money }) => money));
    return {
      event,
      totals,
      eventItems: await all('eventItems'),
      hours: await all('eventHours'),
      taxes: await all('eventTaxes'),
      tips: await all('eventTips'),
      accounts,
      drawers,
      drawerSums:
        drawers.length === 0
          ? []
          : await books.rows(
              business,
              'drawerSums',
              { drawer: drawers.map((drawer) => drawer.id) },
              transaction,
            ),
      drawerReads: await all('drawerReads'),
      cashMoves: (await all('cashMoves')).map(({ photo: _photo, ...move }) => move),
      cards,
      refunds,
      lines,
      joins:
        lines.length === 0
          ? []
          : await books.rows(
              business,
              'cardJoins',
              { id: lines.map((line) => line.id) },
              transaction,
            ),
      came: standing(await all('moneyCame'), undone),
      handedIn: await all('handedIn'),
      tipShares: await all('tipShares'),
      paidOut: standing(await all('paidOut'), undone),
      makerMails: await all('makerMails'),
      settled: await all('settledEvents'),
      settlements: await settlementsOf(reading),
      ways: await books.rows(business, 'ways', {}, transaction),
      items: await books.rows(business, 'items', {}, transaction),
      makers: await books.rows(business, 'makers', {}, transaction),
      staffPay,
      // A sum over all sales: only where somebody earns by what was sold.
      sellers: staffPay.some(({ commission }) => Number(commission) > 0)
        ? [
            ...(await sellersOf(reading, off)),
            ...(await sellersOfLines(reading, off, putRight)),
            ...sellersHere(here),
            ...sellersBack(back),
          ]
        : [],
      hands: await books.rows(business, 'looseEndHands', { to: { [Op.ne]: null } }, transaction),
      ...(await oddLines(
        reading,
        off,
        [...back.lines, ...(await linesPutRight(reading, off, putRight))],
        here.flatMap(({ lines }) => lines),
      )),
      movements: await books.rows(
        business,
        'movements',
        { [Op.or]: [{ from: id }, { to: id }] },
        transaction,
      ),
      counted: await books.rows(business, 'countsAccepted', { place: id }, transaction),
      waiting: await waitingSlips(reading),
      uncollected: await uncollectedOrders(reading),
      owing: await owingSlips(reading, accounts, off),
      kept: await keptOf(reading),
      soldTwice: await soldTwiceOf(reading, sold, isVoid),
      devices: await devicesAt(reading, new Set(sold.map(({ device }) => device))),
      before: await editionsBefore(reading, event),
      now,
    };
  });
}

/** Cards of what was sold here, wherever it was rung up. */
async function cardsAt(
  { books, business, event, transaction }: Reading,
  rung: readonly Row<'cardPayments'>[],
  { parts }: MovedSales,
): Promise<readonly Row<'cardPayments'>[]> {
  const here = [...parts.values()].filter((part) => part.event === event && part.card !== null);
  const known = new Set(rung.map(({ id }) => id));
  const others = here.flatMap(({ id }) => (known.has(id) ? [] : id));
  return [
    ...rung.filter(({ id }) => (parts.get(id)?.event ?? event) === event),
    ...(others.length === 0
      ? []
      : await books.rows(business, 'cardPayments', { id: others }, transaction)),
  ];
}

/**
 * Lines about its cards, and lines of its days whose reference is of no card that is known: those may be its own
 * under another name. What was joined to one of its cards by hand is among them.
 */
async function cardLines(
  { books, business, transaction }: Reading,
  event: Row<'events'>,
  own: readonly string[],
): Promise<Row<'cardLines'>[]> {
  const days = { [Op.between]: [firstDay(event), lastDay(event)] };
  const joined =
    own.length === 0 ? [] : await books.rows(business, 'cardJoins', { payment: own }, transaction);
  const found = await books.rows(
    business,
    'cardLines',
    { [Op.or]: [{ reference: own }, { day: days }, { id: joined.map(({ id }) => id) }] },
    transaction,
  );
  const known = new Set([...own, ...joined.map(({ id }) => id)]);
  const strange = found.filter(({ id, reference }) => !known.has(reference) && !known.has(id));
  const others = new Set<string>();
  if (strange.length > 0) {
    const named = { id: [...new Set(strange.map(({ reference }) => reference))] };
    for (const table of ['cardPayments', 'cardRefunds'] as const)
      for (const { id } of await books.rows(business, table, named, transaction)) others.add(id);
  }
  return found.filter(({ reference }) => !others.has(reference));
}

/** Loose ends that were settled, by name: few enough to be read as they are. */
const settlementsOf = async ({ database, business, transaction }: Reading) =>
  await select<{ looseEnd: string }>(
    database,
    `SELECT DISTINCT looseEnd FROM ${sqlTable('settlements')} WHERE business = ?`,
    [business],
    transaction,
  );

async function waitingSlips({
  books,
  business,
  event,
  transaction,
}: Reading): Promise<SettlingRows['waiting']> {
  const slips = await books.rows(
    business,
    'slips',
    { event, state: { [Op.ne]: 'gone' } },
    transaction,
  );
  if (slips.length === 0) return [];
  const lines = await books.rows(
    business,
    'slipLines',
    { slip: slips.map(({ id }) => id) },
    transaction,
  );
  return slips.map((slip) => ({
    slip,
    items: lines.flatMap(({ slip: of, line }) =>
      of === slip.id && line !== null ? [{ item: line.item, quantity: line.quantity }] : [],
    ),
  }));
}

/** Orders that were to be collected here, and of which something is still to be handed over. */
async function uncollectedOrders({
  books,
  business,
  event,
  transaction,
}: Reading): Promise<SettlingRows['uncollected']> {
  const where = { collectAt: event, stage: { [Op.ne]: 'off' } };
  const orders = await books.rows(business, 'orders', where, transaction);
  if (orders.length === 0) return [];
  const ids = orders.map(({ id }) => id);
  const sums = await books.rows(business, 'orderSums', { order: ids }, transaction);
  const accounts = ids.map((id) => `deposit:${id}`);
  const held = await books.rows(business, 'heldSums', { account: accounts }, transaction);
  const balances = new Map(held.map(({ account, amount }) => [account, amount]));
  return ordersNow(orders, sums, balances, '')
    .filter((now) => now.order.sort !== 'quote' && isOpen(now))
    .map(({ order, deposit }) => ({ order: order.id, number: order.number, deposit }));
}

/** Only where the event's slips do not come to nothing: then each is looked at. */
async function owingSlips(
  { books, business, event, transaction }: Reading,
  accounts: readonly Row<'eventAccounts'>[],
  off: ReadonlySet<string>,
): Promise<SettlingRows['owing']> {
  const inAll = accounts.find(({ account }) => account === 'slip')?.amount ?? 0;
  if (inAll === 0) return [];
  const of = { event };
  const sales = await books.rows(business, 'sales', of, transaction);
  const parts = await books.rows(business, 'payments', of, transaction);
  const back = new Set(
    (await books.rows(business, 'reversals', of, transaction)).map(({ payment }) => payment),
  );
  for (const { id, payments } of sales)
    if (off.has(id)) for (const part of payments) back.add(part);
  const owing = new Map<string, number>();
  const add = (slip: string, amount: number) => owing.set(slip, (owing.get(slip) ?? 0) + amount);
  for (const { id, slip, total, uplift } of sales) if (!off.has(id)) add(slip, total + uplift);
  for (const part of parts) if (!back.has(part.id)) add(part.slip, -takingsOfPart(part));
  return [...owing]
    .filter(([, amount]) => amount !== 0)
    .map(([slip, amount]) => ({ slip, amount }));
}

async function keptOf({
  database,
  business,
  event,
  transaction,
}: Reading): Promise<SettlingRows['kept']> {
  const rows = await select<{
    id: string;
    kind: string;
    state: string;
    fault: string;
    by: string | null;
  }>(
    database,
    // By their states: what is kept is little beside all that was written.
    "SELECT id, kind, state, fault, JSON_VALUE(entry, '$.by') AS `by` FROM daybook_entries " +
      'FORCE INDEX (by_state) ' +
      'WHERE business = ? AND event = ? AND state IN (' +
      `${TO_BE_SEEN_LIST}) ORDER BY position`,
    [business, event],
    transaction,
  );
  return rows.map(({ fault, state, ...row }) => {
    const why = whySchema.safeParse(jsonOrNull(fault));
    const isCounted = state === 'doubted';
    return { ...row, isCounted, message: why.success ? why.data.message : fault };
  });
}

/** Of which slip each sale is, and whose device rang it up. */
const soldOf = async ({ database, business, event, transaction }: Reading) =>
  await select<{ slip: string; device: string }>(
    database,
    `SELECT slip, device FROM ${sqlTable('sales')} WHERE business = ? AND event = ?`,
    [business, event],
    transaction,
  );

async function soldTwiceOf(
  { books, business, transaction }: Reading,
  sold: readonly { readonly slip: string }[],
  off: ReadonlySet<string>,
): Promise<SettlingRows['soldTwice']> {
  const [once, twice] = [new Set<string>(), new Set<string>()];
  for (const { slip } of sold) (once.has(slip) ? twice : once).add(slip);
  if (twice.size === 0) return [];
  const slips = [...twice];
  const sales = (await books.rows(business, 'sales', { slip: slips }, transaction)).filter(
    ({ id }) => !off.has(id),
  );
  return slips
    .map((slip) => ({
      slip,
      numbers: sales.flatMap((sale) => (sale.slip === slip ? sale.number : [])),
    }))
    .filter(({ numbers }) => numbers.length > 1);
}

async function devicesAt(
  { books, database, business, transaction }: Reading,
  wrote: ReadonlySet<string>,
): Promise<SettlingDevice[]> {
  const rows = await select<{
    id: string;
    number: number;
    seq: number;
    hash: string;
    seenAt: string;
    headSaid: number;
    isShutOut: number;
  }>(
    database,
    'SELECT device AS id, number, seq, hash, seenAt, headSaid, isShutOut FROM access_devices ' +
      'WHERE business = ? ORDER BY number',
    [business],
    transaction,
  );
  const names = new Map(
    (await books.rows(business, 'devices', {}, transaction)).map(({ id, name }) => [id, name]),
  );
  return rows.map(({ seenAt, isShutOut, ...row }) => ({
    ...row,
    name: names.get(row.id) ?? '',
    seenAt: Number(seenAt),
    isShutOut: isShutOut === 1,
    hasWritten: wrote.has(row.id),
  }));
}

const MOST_BEFORE = 5;

async function editionsBefore(
  { books, business, transaction }: Reading,
  event: Row<'events'>,
): Promise<SettlingRows['before']> {
  if (event.series === null) return [];
  const editions = (await books.rows(business, 'events', { series: event.series }, transaction))
    .filter(({ id, days }) => id !== event.id && id !== NO_EVENT && days.length > 0)
    .filter((each) => firstDay(each) < firstDay(event))
    .sort((a, b) => (firstDay(a) < firstDay(b) ? 1 : -1))
    .slice(0, MOST_BEFORE);
  if (editions.length === 0) return [];
  const totals = await books.rows(
    business,
    'eventTotals',
    { event: editions.map(({ id }) => id) },
    transaction,
  );
  return editions.map(({ id, name, days }) => {
    const row = totals.find((each) => each.event === id);
    const day = days[0]?.date ?? '';
    return { id, name, day, takings: row?.takings ?? 0, sales: row?.sales ?? 0 };
  });
}
