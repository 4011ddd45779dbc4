/** A payment that is left half-way: the parts that were taken are given back. */
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';
import { paidWith, takingsOfPart } from '../payment/part-sums';
import type { OpenSlip } from '../slip/open-slip';

export interface GivePartsBack {
  readonly newId: () => string;
  readonly slip: OpenSlip;
  readonly event: string | null;
  /** Entries of the parts that go back. */
  readonly parts: readonly string[];
  readonly reason: string;
  /** Who took each part, by its id: a tip that goes back was theirs. */
  readonly takenBy: ReadonlyMap<string, string | null>;
}

/**
 * Gives parts back: each by an entry that names it. What was cleared is owed again, on a slip that
 * is as it was before; with none left, what it comes to may change again.
 */
export function givePartsBack({ newId, slip, event, parts, reason, takenBy }: GivePartsBack): {
  readonly ok: true;
  readonly drafts: readonly Draft[];
  readonly slip: OpenSlip;
} {
  const gone = (slip.paid ?? []).filter(({ id }) => parts.includes(id));
  const drafts = gone.map((part) =>
    draft('payment.reversed', newId(), event, {
      payment: part.id,
      slip: slip.id,
      way: part.way,
      drawer: part.drawer,
      clears: part.clears,
      takings: takingsOfPart(part),
      surcharge: part.surcharge,
      tip: part.tip,
      ...(takenBy.has(part.id) ? { seller: takenBy.get(part.id) ?? null } : {}),
      amount: paidWith(part),
      reason: reason.trim().slice(0, 200),
      isCard: part.card !== null,
    }),
  );
  const left = (slip.paid ?? []).filter(({ id }) => !parts.includes(id));
  // With none left it is priced by the set-up as it is.
  const { paid: _paid, fixed, ...bare } = slip;
  const asFixed = fixed === undefined ? {} : { fixed };
  return {
    ok: true,
    drafts,
    slip: left.length === 0 ? bare : { ...bare, ...asFixed, paid: left },
  };
}
