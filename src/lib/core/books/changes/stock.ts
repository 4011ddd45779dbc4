/** Stock is movement between places and nothing else; how much is where is a sum of the journal. */
import type { EntryOf, KnownEntry } from '../../daybook/kinds';
import type { JournalEntry } from '../../journal/journal-entry';
import { merge, put, type Change } from '../change';
import { countedAt } from './count';
import { saidBy } from './said-by';
import { movedForList } from './list';

export const stockMoved = (entry: EntryOf<'stock.moved'>): Change[] => {
  const { from, to, reason, goods, list, note } = entry.body;
  return [
    ...goods.map(({ item, quantity, amount = 0 }, at) =>
      put('movements', {
        id: `${entry.id}:${String(at)}`,
        ...saidBy(entry),
        item,
        from,
        to,
        quantity,
        reason,
        list: list?.id ?? null,
        amount,
        note,
      }),
    ),
    ...movedForList(entry),
  ];
};

/** Each place of one's own that goods come to or leave, by what the journal says of an entry. */
export function movesOf(entry: KnownEntry, { postings }: JournalEntry): Change[] {
  const changes: Change[] = [];
  for (const [at, { place, item, line, quantity = 0 }] of postings.entries()) {
    if (place === undefined || item === undefined || quantity === 0 || !isOwn(place)) continue;
    changes.push(
      put('moves', {
        id: `${entry.id}:${String(at)}`,
        device: entry.device,
        by: entry.by,
        at: entry.at,
        // Let go of by its age alone: what a count is compared with must not depend on when an event was.
        event: null,
        place,
        item,
        quantity,
        stamp: stampOf(entry, line),
        kind: entry.kind,
        doc: docOf(entry),
      }),
    );
  }
  return changes;
}

/** What was counted is so from when it was counted on, whenever somebody accepts it. */
function stampOf(entry: KnownEntry, line: number | undefined): string {
  if (entry.kind !== 'count.accepted') return entry.stamp;
  return countedAt(entry, entry.body.goods[line ?? 0]?.stamp ?? entry.stamp);
}

/** Where goods can be counted: not with suppliers, and not gone. */
const isOwn = (place: string): boolean =>
  place !== 'suppliers' && place !== 'uncounted' && !place.startsWith('gone:');

/** The document that tells of it, where it is not the entry itself. */
function docOf(entry: KnownEntry): string {
  if (entry.kind === 'sale.voided' || entry.kind === 'void.undone') return entry.body.sale;
  if (entry.kind === 'stock.moved') return entry.body.list?.id ?? entry.id;
  return entry.kind === 'count.accepted' ? entry.body.count : entry.id;
}

export const placeSet = ({ stamp, body }: EntryOf<'place.set'>): Change[] => {
  const { id, ...fields } = body;
  return [merge('places', id, 'set', stamp, fields)];
};

export const supplierSet = ({ stamp, body }: EntryOf<'supplier.set'>): Change[] => {
  const { id, ...fields } = body;
  return [merge('suppliers', id, 'set', stamp, fields)];
};

export const itemSupply = ({ stamp, body }: EntryOf<'item.supply'>): Change[] => {
  const { item, ...fields } = body;
  return [merge('supplies', item, 'set', stamp, fields)];
};
