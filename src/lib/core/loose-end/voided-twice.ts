/** A sale that two devices voided out of touch: it is taken off twice until one of the voids is taken back. */
import type { Row } from '../books/tables';
import { draft } from '../daybook/kinds';
import { undoBody } from '../sale/void-sale';
import type { SettleOutcome } from './kept-entry';

type Void = Pick<Row<'voids'>, 'id' | 'sale' | 'at' | 'by' | 'reason'>;
type Undone = Pick<Row<'voidsUndone'>, 'void'>;

export interface VoidedTwice {
  readonly sale: string;
  /** Those that stand, in the order in which they were written. */
  readonly voids: readonly Void[];
}

/** Voids that have not been taken back. */
export function standingVoids<V extends Pick<Void, 'id'>>(
  voids: readonly V[],
  undone: readonly Undone[],
): readonly V[] {
  const back = new Set(undone.map((each) => each.void));
  return voids.filter(({ id }) => !back.has(id));
}

/** What the loose end is called. */
export const voidedTwiceName = ({ sale }: Pick<VoidedTwice, 'sale'>): string => `voided:${sale}`;

/** Sales that are voided more than once; the latest first. */
export function voidedTwice(
  voids: readonly Void[],
  undone: readonly Undone[],
): readonly VoidedTwice[] {
  const bySale = new Map<string, Void[]>();
  for (const each of standingVoids(voids, undone))
    bySale.set(each.sale, [...(bySale.get(each.sale) ?? []), each]);
  return [...bySale]
    .filter(([, of]) => of.length > 1)
    .map(([sale, of]) => ({ sale, voids: of.sort((a, b) => (a.at < b.at ? -1 : 1)) }))
    .sort((a, b) => (a.voids[0]!.at < b.voids[0]!.at ? 1 : -1));
}

export interface UndoVoid {
  readonly newId: () => string;
  readonly sale: Row<'sales'>;
  readonly lines: readonly Row<'saleLines'>[];
  readonly payments: readonly Row<'payments'>[];
  readonly voids: readonly Void[];
  readonly undone: readonly Undone[];
  readonly settlements: readonly Pick<Row<'settlements'>, 'looseEnd'>[];
  readonly reason: string;
}

/** Takes all voids of the sale back but the first, and settles what was held against them. */
export function undoSecondVoid(command: UndoVoid): SettleOutcome {
  const { newId, sale, lines, payments, settlements } = command;
  const reason = command.reason.trim().slice(0, 200);
  const of = voidedTwice(command.voids, command.undone).find((each) => each.sale === sale.id);
  if (of === undefined) return { ok: false, refusal: { code: 'looseEnd/settled' } };
  if (reason === '') return { ok: false, refusal: { code: 'looseEnd/no-reason' } };
  const settled = new Set(settlements.map(({ looseEnd }) => looseEnd));
  return {
    ok: true,
    drafts: of.voids.slice(1).flatMap((second) => {
      const looseEnd = `entry:${second.id}`;
      const put = undoBody({ sale, lines, payments, reason, void: second.id });
      const undone = draft('void.undone', newId(), sale.event, put);
      const body = { looseEnd, how: 'accepted', reason } as const;
      return settled.has(looseEnd)
        ? [undone]
        : [undone, draft('looseEnd.settled', newId(), null, body)];
    }),
  };
}
