/** How drawers are counted: blind or not, and above which difference once more. */
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';
import { readAmount } from '../money/amount-text';

export interface TypedCashRules {
  readonly isBlind: boolean;
  /** Empty for never. */
  readonly above: string;
}

export function setCashRules(
  newId: () => string,
  { isBlind, above }: TypedCashRules,
  currency: string,
):
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: { readonly typed: string } } {
  const read = above.trim() === '' ? null : readAmount(above, currency);
  if (read?.ok === false) return { ok: false, refusal: { typed: above } };
  const body = { isBlind, recountAbove: read?.amount ?? null };
  return { ok: true, drafts: [draft('business.cash', newId(), null, body)] };
}
