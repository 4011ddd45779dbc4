/** Cash of a drawer that was heard of after its final read: the read stays, and the difference gets a name. */
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';
import { lateCash } from '../drawer/expected-cash';
import { byAmount } from './by-amount';

export interface LateCash {
  readonly drawer: Row<'drawers'>;
  readonly read: Row<'drawerReads'>;
  /** Minor units more than the read knew of; below nothing for less. */
  readonly amount: number;
}

/** What the loose end is called: more of it later is another one. */
export const lateCashName = ({
  drawer,
  amount,
}: {
  readonly drawer: Pick<Row<'drawers'>, 'id'>;
  readonly amount: number;
}): string => `latecash:${drawer.id}-${byAmount(amount)}`;

/** Drawers that were counted, and of which something was heard since that has no name yet. */
export function lateCashes(
  drawers: readonly Row<'drawers'>[],
  sums: readonly Row<'drawerSums'>[],
  reads: readonly Row<'drawerReads'>[],
): readonly LateCash[] {
  const sumsOf = new Map(sums.map((row) => [row.drawer, row]));
  const readsOf = new Map<string, Row<'drawerReads'>[]>();
  for (const read of reads) readsOf.set(read.drawer, [...(readsOf.get(read.drawer) ?? []), read]);
  return drawers.flatMap((drawer) => {
    const own = readsOf.get(drawer.id) ?? [];
    const [read] = own;
    const amount = lateCash(drawer, sumsOf.get(drawer.id), own);
    return read === undefined || amount === 0 ? [] : { drawer, read, amount };
  });
}

export type LateCashOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | {
      readonly ok: false;
      readonly refusal: { readonly code: 'looseEnd/no-reason' | 'looseEnd/settled' };
    };

/** Calls it a difference of the drawer. @param late As it is now; undefined where nothing is late any more. */
export function settleLateCash(
  newId: () => string,
  late: LateCash | undefined,
  why: string,
): LateCashOutcome {
  if (late === undefined) return { ok: false, refusal: { code: 'looseEnd/settled' } };
  const reason = why.trim().slice(0, 500);
  if (reason === '') return { ok: false, refusal: { code: 'looseEnd/no-reason' } };
  const { drawer, amount } = late;
  const body = { drawer: drawer.id, amount, reason };
  return { ok: true, drafts: [draft('drawer.late', newId(), drawer.event, body)] };
}
