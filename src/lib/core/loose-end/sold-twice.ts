/** A slip that two devices took up out of touch and both rang up: both sales stand, and it shows. */
import type { Row } from '../books/tables';
import { draft } from '../daybook/kinds';
import type { SettleOutcome } from './kept-entry';

type Sale = Pick<Row<'sales'>, 'id' | 'slip' | 'number' | 'at' | 'total' | 'by'>;

export interface SoldTwice {
  readonly looseEnd: string;
  /** In the order in which they were rung up. */
  readonly sales: readonly Sale[];
}

/** Slips with more than one sale that nobody has settled; the latest first. */
export function soldTwice(
  sales: readonly Sale[],
  settlements: readonly Pick<Row<'settlements'>, 'looseEnd'>[],
): readonly SoldTwice[] {
  const bySlip = new Map<string, Sale[]>();
  for (const sale of sales) bySlip.set(sale.slip, [...(bySlip.get(sale.slip) ?? []), sale]);
  const settled = new Set(settlements.map(({ looseEnd }) => looseEnd));
  return [...bySlip]
    .map(([slip, rung]) => ({ looseEnd: `slip:${slip}`, sales: rung.sort(byTime) }))
    .filter(({ looseEnd, sales: rung }) => rung.length > 1 && !settled.has(looseEnd))
    .sort((a, b) => byTime(b.sales[0]!, a.sales[0]!));
}

const byTime = (a: Sale, b: Sale): number =>
  a.at === b.at ? (a.id < b.id ? -1 : 1) : a.at < b.at ? -1 : 1;

/** Takes down that somebody has looked, and what came of it. */
export function settleSeen(
  newId: () => string,
  looseEnd: string,
  reason: string,
  settlements: readonly Pick<Row<'settlements'>, 'looseEnd'>[],
): SettleOutcome {
  const why = reason.trim().slice(0, 500);
  if (settlements.some((each) => each.looseEnd === looseEnd))
    return { ok: false, refusal: { code: 'looseEnd/settled' } };
  if (why === '') return { ok: false, refusal: { code: 'looseEnd/no-reason' } };
  const body = { looseEnd, how: 'accepted', reason: why } as const;
  return { ok: true, drafts: [draft('looseEnd.settled', newId(), null, body)] };
}
