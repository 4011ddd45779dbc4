/** The ledger of an event as it is asked for, and handed over. */
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft, type KnownEntry } from '../daybook/kinds';
import type { LedgerLine } from '../formats/plain-ledger';
import type { LedgerBy } from './ledger-by';

export type LedgerHandedRow = Pick<
  Row<'ledgerHanded'>,
  'id' | 'at' | 'by' | 'stamp' | 'heads' | 'leftOut' | 'postings' | 'groupedBy'
>;

export interface EventLedger {
  /** As the plain-text accounting tools read it. */
  readonly text: string;
  readonly lines: readonly LedgerLine[];
  readonly transactions: number;
  /** How far it knows each device, and what it leaves out. */
  readonly heads: readonly { readonly device: string; readonly seq: number }[];
  readonly leftOut: readonly string[];
  /** When it was handed over before, the last time first. */
  readonly handed: readonly LedgerHandedRow[];
  /** Entries that have come since, and move money. */
  readonly fresh: number;
}

/** Whether an entry has come since the last time, or changed nothing then. */
export function isNewSince(
  handed: readonly Pick<LedgerHandedRow, 'stamp' | 'heads' | 'leftOut'>[],
): (entry: Pick<KnownEntry, 'id' | 'device' | 'seq'>) => boolean {
  const last = handed.reduce<(typeof handed)[number] | undefined>(
    (latest, each) => (latest === undefined || each.stamp > latest.stamp ? each : latest),
    undefined,
  );
  const known = new Map(last?.heads.map(({ device, seq }) => [device, seq]));
  const left = new Set(last?.leftOut);
  return ({ id, device, seq }) => seq > (known.get(device) ?? 0) || left.has(id);
}

/** What was shown is handed over: from then on only what comes later is new. */
export function handOverLedger(
  newId: () => string,
  event: string,
  by: LedgerBy,
  ledger: Pick<EventLedger, 'heads' | 'leftOut' | 'lines'>,
): readonly Draft[] {
  const body = {
    ...{ event, groupedBy: by, heads: [...ledger.heads], leftOut: [...ledger.leftOut] },
    postings: ledger.lines.length,
  };
  return [draft('ledger.handed', newId(), event, body)];
}
