/** Something that was written before stock was counted, and heard of only after the count had been accepted. */
import type { Row } from '../books/tables';
import { draft } from '../daybook/kinds';
import { costOf } from '../sale/cost';
import { GONE_COUNTED } from '../journal/stock';
import { lateEntries } from '../stock/count';
import type { SettleOutcome } from './kept-entry';

type Accepted = Row<'countsAccepted'>;
type Settled = Pick<Row<'settlements'>, 'looseEnd'>;

export interface LateCount {
  readonly looseEnd: string;
  readonly accepted: Accepted;
  /** What is to be added, so that the books say what was counted. Thousandths. */
  readonly by: number;
}

/** How long back is looked: less than a device keeps moves for, so that none is missing. Milliseconds. */
const LOOKED_BACK = 12 * 86_400_000;

const aboutOf = (accepted: Pick<Accepted, 'id'>): string => `late:${accepted.id.replace(':', '-')}`;
/** `p3000` for three more, `m1000` for one less. */
const signed = (by: number): string => `${by < 0 ? 'm' : 'p'}${String(Math.abs(by))}`;

/** How much of it somebody has settled already, whichever way. */
function settledOf(about: string, settlements: readonly Settled[]): number {
  let sum = 0;
  for (const { looseEnd } of settlements) {
    const [, sign, much] = looseEnd.startsWith(`${about}-`)
      ? (/-([pm])(\d+)-\d+$/.exec(looseEnd) ?? [])
      : [];
    if (much !== undefined) sum += (sign === 'm' ? -1 : 1) * Number(much);
  }
  return sum;
}

/** @param now Milliseconds since 1970. */
export function lateCounts(
  accepted: readonly Accepted[],
  moves: readonly Row<'moves'>[],
  onHand: (place: string, item: string) => number,
  settlements: readonly Settled[],
  now: number,
): readonly LateCount[] {
  const since = new Date(now - LOOKED_BACK).toISOString();
  const recent = accepted.filter(({ at }) => at >= since);
  return lateEntries(recent, moves, onHand).flatMap(({ accepted: each, by: all }) => {
    const about = aboutOf(each);
    const by = all - settledOf(about, settlements);
    if (by === 0) return [];
    const nth = settlements.filter(({ looseEnd }) => looseEnd.startsWith(`${about}-`)).length;
    const looseEnd = `${about}-${signed(by)}-${String(nth)}`;
    return [{ looseEnd, accepted: each as Accepted, by }];
  });
}

export interface SettleLateCount {
  readonly newId: () => string;
  readonly late: LateCount;
  /** The books are made to say what was counted; or they stay as they are. */
  readonly isPutRight: boolean;
  readonly cost: number | null;
  readonly reason: string;
  readonly settlements: readonly Settled[];
}

export function settleLateCount(command: SettleLateCount): SettleOutcome {
  const { newId, late, isPutRight, cost, settlements } = command;
  const reason = command.reason.trim().slice(0, 500);
  if (settlements.some(({ looseEnd }) => looseEnd === late.looseEnd))
    return { ok: false, refusal: { code: 'looseEnd/settled' } };
  if (reason === '') return { ok: false, refusal: { code: 'looseEnd/no-reason' } };
  const { place, item, event } = late.accepted;
  const quantity = Math.abs(late.by);
  const ends = late.by > 0 ? { from: GONE_COUNTED, to: place } : { from: place, to: GONE_COUNTED };
  const moved = draft('stock.moved', newId(), event, {
    reason: 'put right',
    ...ends,
    goods: [{ item, quantity, amount: costOf({ quantity, cost }) ?? 0 }],
    note: reason,
  });
  const how = isPutRight ? 'done over' : 'accepted';
  const settled = draft('looseEnd.settled', newId(), null, {
    looseEnd: late.looseEnd,
    how,
    reason,
  });
  return { ok: true, drafts: isPutRight ? [moved, settled] : [settled] };
}
