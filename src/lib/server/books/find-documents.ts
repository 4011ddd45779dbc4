/** Documents beside sales that devices let go of with their event: cash and goods that were moved, refunds without a sale. */
import {
  cashToFind,
  documentsToFind,
  goodsToFind,
  fittingDocuments,
  refundToFind,
  type FoundDocument,
  type OlderDocument,
} from '../../core/find/documents';
import { folded, wordsIn } from '../../core/entry-line/words';
import { itemName } from '../../core/goods/item-name';
import { SHORTEST } from '../../core/sale/sale-document';
import { placeName } from '../../core/stock/place-name';
import { allPlaces } from '../../core/stock/places';
import { goneTo } from '../../core/books/names';
import type { Row } from '../../core/books/tables';
import { GONE } from '../../core/daybook/kinds/stock-moved';
import type { Transaction } from 'sequelize';
import type { Database } from '../database/database';
import { LIKE, plainly } from '../database/like';
import { select } from '../database/select';
import type { BookReader } from './read-books';

type Cash = Pick<Row<'cashMoves'>, 'id' | 'at' | 'by' | 'event' | 'bag' | 'what' | 'amount'>;

/** Those that fit what was typed, as a device finds its own: by number, amount, day, person or words. */
export async function findDocuments(
  database: Database,
  books: BookReader,
  business: string,
  typed: string,
): Promise<readonly FoundDocument[]> {
  const [owner] = await books.rows(business, 'businesses', { id: business });
  return await database.snapshot(async (transaction) => {
    const staff = await books.rows(business, 'staff', {}, transaction);
    const events = await books.rows(business, 'events', {}, transaction);
    // A few for each event: fewer than any index of their words would hold.
    const cash = await select<Cash & { readonly amount: string }>(
      database,
      'SELECT id, at, `by`, event, bag, what, amount FROM books_cash_moves WHERE business = ?',
      [business],
      transaction,
    );
    const refunds = await books.rows(business, 'refunds', {}, transaction);
    const goods = await goodsLike({ database, books, business, transaction }, typed, {
      staff,
      events,
    });
    const person = (id: string | null): string => staff.find((each) => each.id === id)?.name ?? '';
    const event = (id: string | null): string => events.find((each) => each.id === id)?.name ?? '';
    const all = [
      ...cash.map((row) =>
        cashToFind({ ...row, amount: Number(row.amount) }, event(row.event), person(row.by)),
      ),
      ...refunds.map((row) => refundToFind(row, person(row.by))),
      ...goods,
    ];
    return fittingDocuments(documentsToFind(all), typed, owner?.currency ?? 'GBP');
  });
}

/** As many goods moved as are looked at, the latest of those that one of the words is about. */
const MOST_MOVED = 2000;

interface Asking {
  readonly database: Database;
  readonly books: BookReader;
  readonly business: string;
  readonly transaction: Transaction;
}

/**
 * Goods that were moved, of an item, to or from a place, by somebody, with a note that has one of the words in it, or
 * on that day: so few that all of the words can be looked for in each.
 */
async function goodsLike(
  { database, books, business, transaction }: Asking,
  typed: string,
  { staff, events }: Readonly<{ staff: readonly Row<'staff'>[]; events: readonly Row<'events'>[] }>,
): Promise<readonly FoundDocument[]> {
  const words = wordsIn(typed).filter((word) => word.length >= SHORTEST);
  const day = /^\d{4}-\d\d-\d\d$/.test(typed.trim()) ? typed.trim() : null;
  if (words.length === 0 && day === null) return [];
  const items = await books.rows(business, 'items', {}, transaction);
  const places = allPlaces(await books.rows(business, 'places', {}, transaction));
  const suppliers = await books.rows(business, 'suppliers', {}, transaction);
  const names = { places, events, suppliers };
  const about = (text: string): boolean => words.some((word) => folded(text).includes(word));
  const ofItems = items.flatMap((item) => (about(itemName(item)) ? item.id : []));
  const there = [...places, ...events, ...GONE.map((why) => ({ id: goneTo(why) }))].flatMap(
    ({ id }) => (about(placeName(id, names)) ? id : []),
  );
  const people = staff.flatMap(({ id, name }) => (about(name) ? id : []));
  const either: readonly (readonly [string, readonly unknown[]])[] = [
    ...(ofItems.length === 0 ? [] : [['item IN (?)', [ofItems]] as const]),
    ...(there.length === 0 ? [] : [['`from` IN (?) OR `to` IN (?)', [there, there]] as const]),
    ...(people.length === 0 ? [] : [['`by` IN (?)', [people]] as const]),
    ...(day === null ? [] : [['at LIKE ?', [`${day}%`]] as const]),
    ...words.map((word) => [`note ${LIKE} ?`, [`%${plainly(word)}%`]] as const),
  ];
  const rows = await select<
    Pick<Row<'movements'>, 'id' | 'at' | 'by' | 'item' | 'from' | 'to' | 'note'>
  >(
    database,
    'SELECT id, at, `by`, item, `from`, `to`, note FROM books_movements WHERE business = ? ' +
      `AND (${either.map(([sql]) => sql).join(' OR ')}) ORDER BY id DESC LIMIT ${String(MOST_MOVED)}`,
    [business, ...either.flatMap(([, values]) => values)],
    transaction,
  );
  const title = new Map(items.map((item) => [item.id, itemName(item)]));
  const person = (id: string | null): string => staff.find((each) => each.id === id)?.name ?? '';
  return rows.map((row) =>
    goodsToFind(
      row,
      title.get(row.item) ?? 'goods',
      [placeName(row.from, names), placeName(row.to, names)],
      person(row.by),
    ),
  );
}

/** One of them, as its page shows it; null for one that this business has not. */
export async function olderDocument(
  books: BookReader,
  business: string,
  id: string,
): Promise<OlderDocument | null> {
  const [cash] = await books.rows(business, 'cashMoves', { id });
  if (cash !== undefined) {
    const names = await books.rows(business, 'drawers', { event: cash.event });
    return { is: 'cash', row: cash, drawers: names.map((each) => [each.id, each.name]) };
  }
  const [refund] = await books.rows(business, 'refunds', { id });
  if (refund === undefined) {
    const [goods] = await books.rows(business, 'movements', { id });
    return goods === undefined ? null : { is: 'goods', row: goods };
  }
  const { card } = refund.money;
  const [onto] =
    card === undefined ? [] : await books.rows(business, 'cardRefunds', { id: card.refund });
  return { is: 'refund', row: refund, card: onto ?? null };
}
