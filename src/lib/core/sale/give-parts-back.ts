/** A payment that is left half-way: the parts that were taken are given back. */
import type { Draft } from '../daybook/chain';
import { draft, type BodyOf } from '../daybook/kinds';
import { TIPS_OF_WRITER } from '../daybook/kinds/before-the-journal';
import { partPostings, type PartFigures } from '../journal/payment';
import { takeBack } from '../journal/take-back';
import { EXCHANGE } from '../payment/methods';
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
  const asked = (slip.paid ?? []).filter(({ id }) => parts.includes(id));
  const stays = (slip.paid ?? []).filter(({ id }) => !parts.includes(id));
  // With no money left, goods that came back pay for nothing either: they may be left out again.
  const gone = stays.every(({ way }) => way === EXCHANGE) ? [...asked, ...stays] : asked;
  const drafts = gone.map((part) =>
    draft(
      'payment.reversed',
      newId(),
      event,
      // Of a part that is not in the rows, it is taken to be whoever gives it back.
      reversalBody(
        {
          ...part,
          slip: slip.id,
          by: takenBy.has(part.id) ? (takenBy.get(part.id) ?? null) : TIPS_OF_WRITER,
        },
        reason.trim().slice(0, 200),
      ),
    ),
  );
  const left = (slip.paid ?? []).filter((part) => !gone.includes(part));
  // With none left it is priced by the set-up as it is.
  const { paid: _paid, fixed, ...bare } = slip;
  const asFixed = fixed === undefined ? {} : { fixed };
  return {
    ok: true,
    drafts,
    slip: left.length === 0 ? bare : { ...bare, ...asFixed, paid: left },
  };
}

/** All that the part brought, to be taken back. */
export const reversalBody = (
  part: PartFigures & { readonly id: string; readonly card: unknown },
  reason: string,
): BodyOf<'payment.reversed'> => ({
  payment: part.id,
  slip: part.slip,
  reason,
  isCard: part.card !== null,
  takes: takeBack(part.id, partPostings(part)),
});
