/** The ledger of an event, out of its entries; what was handed over before, and what has come since. */
import { Books } from '../../core/books/books';
import type { LedgerHandedRow, EventLedger } from '../../core/ledger/event-ledger';
import { isNewSince } from '../../core/ledger/event-ledger';
import type { KnownEntry } from '../../core/daybook/kinds';
import { journalOf } from '../../core/journal';
import { readEntry } from '../../core/daybook/read-entry';
import { chartWith } from '../../core/ledger/chart';
import { ledgerOf } from '../../core/ledger/ledger';
import type { LedgerBy } from '../../core/ledger/ledger-by';
import { ledgerLines, plainLedger } from '../../core/formats/plain-ledger';
import type { TableName } from '../../core/books/tables';
import type { Database } from '../database/database';
import { select } from '../database/select';
import { storedEntry } from '../daybook/stored-entry';
import type { BookReader } from './read-books';

/** What the ledger takes names from. */
const NAMED: readonly TableName[] = [
  'businesses',
  'devices',
  'ways',
  'staff',
  'suppliers',
  'taxes',
  'customers',
];

/** @returns Null for an event that there is not. */
export async function eventLedger(
  database: Database,
  books: BookReader,
  business: string,
  event: string,
  { by, isNewOnly }: { readonly by: LedgerBy; readonly isNewOnly: boolean },
): Promise<EventLedger | null> {
  return await database.snapshot(async (transaction) => {
    const [found] = await books.rows(business, 'events', { id: event }, transaction);
    if (found === undefined || found.setStamp === '') return null;
    const named = new Books();
    named.put('events', [found]);
    for (const table of NAMED)
      named.put(
        table,
        await books.rows(
          business,
          table,
          table === 'businesses' ? { id: business } : {},
          transaction,
        ),
      );
    named.put('drawers', await books.rows(business, 'drawers', { event }, transaction));
    const stored = await select<{ entry: string; held: string; state: string; id: string }>(
      database,
      'SELECT id, entry, held, state FROM daybook_entries WHERE business = ? AND event = ? ORDER BY position',
      [business, event],
      transaction,
    );
    const entries: KnownEntry[] = [];
    const leftOut: string[] = [];
    for (const { state, id, ...text } of stored) {
      const read = readEntry(storedEntry(text));
      if (read.ok && (state === 'applied' || state === 'doubted')) entries.push(read.entry);
      else leftOut.push(id);
    }
    const handed: readonly LedgerHandedRow[] = await books.rows(
      business,
      'ledgerHanded',
      { event },
      transaction,
    );
    const [chart] = await books.rows(business, 'ledgerCharts', {}, transaction);
    const heads = new Map<string, number>();
    for (const { device, seq } of entries) heads.set(device, Math.max(seq, heads.get(device) ?? 0));
    const isNew = isNewSince(handed);
    const ledger = ledgerOf(entries, named, {
      by,
      chart: chartWith(chart?.accounts ?? []),
      ...(isNewOnly ? { isWanted: isNew } : {}),
    });
    return {
      text: plainLedger(ledger),
      lines: ledgerLines(ledger),
      transactions: ledger.transactions.length,
      heads: [...heads].map(([device, seq]) => ({ device, seq })).sort(byDevice),
      leftOut: leftOut.sort(),
      handed: [...handed].sort((a, b) => (a.stamp < b.stamp ? 1 : -1)),
      fresh: entries.filter((entry) => isNew(entry) && movesMoney(entry)).length,
    };
  });
}

const movesMoney = (entry: KnownEntry): boolean =>
  journalOf(entry).postings.some(({ amount = 0 }) => amount !== 0);

const byDevice = (a: { readonly device: string }, b: { readonly device: string }): number =>
  a.device < b.device ? -1 : 1;
