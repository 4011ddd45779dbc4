/** Movements of goods, lists of them, and counts: against places, lists and costs that are known. */
import { BASE, onTheWay, SUPPLIERS } from '../books/names';
import type { Row } from '../books/tables';
import type { BodyOf, EntryOf } from '../daybook/kinds';
import { listRight } from '../stock/list-state';
import { costOf } from '../sale/cost';
import type { Evidence } from './evidence';
import type { Doubt, Verdict } from './verdict';

type Item = Omit<BodyOf<'item.set'>, 'id'>;

/** Places and lists that are known, and goods that are gone at what they cost; sold goods are moved by sales alone. */
export function judgeStock(entry: EntryOf<'stock.moved'>, evidence: Evidence): Doubt | null {
  const { from, to, list, goods } = entry.body;
  const { books, history } = evidence;
  const isPlace = (place: string): boolean =>
    place === BASE ||
    place === SUPPLIERS ||
    (place.startsWith('gone:') && place !== 'gone:sold') ||
    (list !== undefined && place === onTheWay(list.id)) ||
    history.knows('place.set', place) ||
    history.knows('event.set', place);
  const wrong = [from, to].find((place) => !isPlace(place));
  if (wrong !== undefined) return { code: 'stock/place', found: wrong };
  if (list !== undefined && books.row('lists', list.id) === undefined)
    return { code: 'stock/list', found: list.id };
  const over = moreThanThere(entry, evidence);
  if (over !== null) return over;
  if (![from, to].some((place) => place.startsWith('gone:'))) return null;
  const odd = goods.find(
    ({ item, quantity, amount = 0 }) => !isCost(item, quantity, amount, entry.stamp, evidence),
  );
  return odd === undefined ? null : { code: 'stock/amount', found: odd.amount ?? 0 };
}

/**
 * What leaves for a list was packed for it, and what arrives was sent: done on two devices out of touch, it is done
 * twice. Of a supplier more may come than was ordered, and what is gone was not packed.
 */
function moreThanThere({ body }: EntryOf<'stock.moved'>, { books }: Evidence): Doubt | null {
  const { from, list, goods } = body;
  if (list === undefined || from === SUPPLIERS) return null;
  const isArrival = from === onTheWay(list.id);
  if (!isArrival && list.does === 'receive') return null;
  for (const { item, quantity } of goods) {
    const so = books.row('listSums', `${list.id} ${item}`) ?? { packed: 0, sent: 0, received: 0 };
    const [done, most] = isArrival ? [so.received, so.sent] : [so.sent, so.packed];
    if (done + quantity > most)
      return { code: 'stock/list-twice', found: done + quantity, wanted: most };
  }
  return null;
}

/** Whether this many cost this, by what the item cost then or lately; unknown goods cost nothing. */
function isCost(
  item: string,
  quantity: number,
  amount: number,
  stamp: string,
  { history }: Evidence,
): boolean {
  const versions: readonly Pick<Item, 'cost'>[] = history.inForce('item.set', item, stamp);
  return amount === 0 || versions.some(({ cost }) => (costOf({ quantity, cost }) ?? 0) === amount);
}

/**
 * What is on a list is drafted by anybody; on one that is approved, by whoever may approve it, whenever they say it was
 * written: who approved it has not seen what comes in later.
 */
export function judgeList(
  entry: EntryOf<'list.set'> | EntryOf<'list.line'>,
  { books, people }: Evidence,
): Verdict | null {
  const row = books.row('lists', entry.body.list);
  if (row === undefined) return entry.kind === 'list.set' ? null : unknownList(entry.body.list);
  return row.stage === 'approved' ? people.lacks(entry, listRight(row)) : null;
}

/** A list is approved and ended by right; one that is still a draft, anybody calls off. */
export function judgeListStage(
  entry: EntryOf<'list.stage'>,
  { books, people }: Evidence,
): Verdict | null {
  const row = books.row('lists', entry.body.list);
  if (row === undefined) return unknownList(entry.body.list);
  if (isDraft(row) && (entry.body.to === 'off' || entry.body.to === 'draft')) return null;
  return people.lacks(entry, listRight(row));
}

export const judgePacked = ({ body }: EntryOf<'list.packed'>, { books }: Evidence): Doubt | null =>
  books.row('lists', body.list) === undefined ? unknownList(body.list) : null;

/** Only what is ordered from a supplier is mailed to one, and only once somebody approved it. */
export function judgeMailed({ body }: EntryOf<'list.mailed'>, { books }: Evidence): Doubt | null {
  const row = books.row('lists', body.list);
  if (row === undefined) return unknownList(body.list);
  if (row.use !== 'order' || row.supplier === null)
    return { code: 'list/no-order', found: row.use };
  return isDraft(row) ? { code: 'list/draft-mailed', found: body.list } : null;
}

/** Nobody has approved it, as far as it has come. */
const isDraft = ({ stage }: Row<'lists'>): boolean => stage === '' || stage === 'draft';

const unknownList = (list: string): Doubt => ({ code: 'list/unknown', found: list });

export const judgeCount = (
  { body }: EntryOf<'count.noted' | 'count.ended'>,
  { books }: Evidence,
): Doubt | null => (countOf(body.count, books) === undefined ? unknownCount(body.count) : null);

/** What is accepted was counted at that place, and its difference is worth what the goods cost. */
export function judgeAccepted(entry: EntryOf<'count.accepted'>, evidence: Evidence): Doubt | null {
  const { count, place, goods } = entry.body;
  const row = countOf(count, evidence.books);
  if (row === undefined) return unknownCount(count);
  if (row.place !== place) return { code: 'count/place', found: place, wanted: row.place };
  const odd = goods.find(
    ({ item, counted, expected, lost }) =>
      !isCost(item, expected - counted, lost, entry.stamp, evidence),
  );
  return odd === undefined ? null : { code: 'count/figures', found: odd.lost };
}

const countOf = (count: string, books: Evidence['books']): Row<'counts'> | undefined =>
  books.row('counts', count);
const unknownCount = (count: string): Doubt => ({ code: 'count/unknown', found: count });
