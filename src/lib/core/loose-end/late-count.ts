/** What was counted and accepted, and the books say otherwise by now (core/stock/count.ts says how that comes). */
import type { Row } from '../books/tables';
import { draft } from '../daybook/kinds';
import { outsideId } from '../daybook/outside-id';
import { offAccepted, worthOfMissing, type OffAccepted } from '../stock/count';
import { byAmount } from './by-amount';
import type { SettleOutcome } from './kept-entry';

type Settled = Pick<Row<'settlements'>, 'looseEnd'>;

export interface LateCount extends OffAccepted {
  readonly looseEnd: string;
}

/** @param now Milliseconds since 1970. */
export function lateCounts(
  accepted: readonly Row<'countsAccepted'>[],
  moves: readonly Row<'moves'>[],
  onHand: (place: string, item: string) => number,
  settlements: readonly Settled[],
  now: number,
): readonly LateCount[] {
  const settled = new Set(settlements.map(({ looseEnd }) => looseEnd));
  return offAccepted(accepted, moves, onHand, now)
    .map((off) => ({ ...off, looseEnd: looseEndOf(off) }))
    .filter(({ looseEnd }) => !settled.has(looseEnd));
}

/** Of what was counted when, and by how much the books are off: off by more it is another one. */
function looseEndOf({ accepted, by }: OffAccepted): string {
  const { count, place, item, stamp } = accepted;
  const about = outsideId(count, 'late', `${place} ${item} ${stamp}`);
  return `late:${about}-${byAmount(by)}`;
}

export interface SettleLateCount {
  readonly newId: () => string;
  readonly late: LateCount;
  /** The books are made to say what was counted; or they stay as they are. */
  readonly isPutRight: boolean;
  readonly item: Pick<Row<'items'>, 'cost' | 'price'> | undefined;
  readonly reason: string;
}

/** Putting it right accepts what was counted once more, against what the books say now: then nothing is off. */
export function settleLateCount(command: SettleLateCount): SettleOutcome {
  const { newId, late, isPutRight } = command;
  const reason = command.reason.trim().slice(0, 200);
  if (reason === '') return { ok: false, refusal: { code: 'looseEnd/no-reason' } };
  if (!isPutRight) {
    const body = { looseEnd: late.looseEnd, how: 'accepted', reason } as const;
    return { ok: true, drafts: [draft('looseEnd.settled', newId(), null, body)] };
  }
  const { count, place, item, counted, stamp, event } = late.accepted;
  const goods = [
    {
      ...{ item, counted, expected: counted - late.by, stamp },
      ...worthOfMissing(-late.by, command.item),
    },
  ];
  const body = { count, place, goods, reason };
  return { ok: true, drafts: [draft('count.accepted', newId(), event, body)] };
}
