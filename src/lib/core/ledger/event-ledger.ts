/** The ledger of an event as it is asked for, and handed over. */
import { z } from 'zod';
import type { Draft } from '../daybook/chain';
import { uuid } from '../daybook/entry';
import { draft, type KnownEntry } from '../daybook/kinds';
import { ledgerLineSchema } from '../formats/plain-ledger';
import { LEDGER_BY, type LedgerBy } from './ledger-by';

const heads = z.array(z.object({ device: uuid, seq: z.int() }).readonly()).readonly();
const ledgerHandedSchema = z
  .object({
    ...{ id: uuid, at: z.string(), by: uuid.nullable(), stamp: z.string() },
    ...{ heads, leftOut: z.array(uuid).readonly() },
    ...{ postings: z.int(), groupedBy: z.enum(LEDGER_BY) },
  })
  .readonly();
export type LedgerHandedRow = z.infer<typeof ledgerHandedSchema>;

/** What the server answers; both sides go by it. */
export const eventLedgerSchema = z
  .object({
    /** As the plain-text accounting tools read it. */
    text: z.string(),
    lines: z.array(ledgerLineSchema).readonly(),
    transactions: z.int(),
    /** How far it knows each device, and what it leaves out. */
    heads,
    leftOut: z.array(uuid).readonly(),
    /** When it was handed over before, the last time first. */
    handed: z.array(ledgerHandedSchema).readonly(),
    /** Entries that have come since, and move money. */
    fresh: z.int(),
  })
  .readonly();
export type EventLedger = z.infer<typeof eventLedgerSchema>;

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
