/** How drawers are counted: blind or not, and above which difference once more. */
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';
import { readAmount } from '../money/amount-text';

export interface TypedCashRules {
  readonly isBlind: boolean;
  /** Empty for never. */
  readonly above: string;
  /** Empty for any amount. */
  readonly refundMost: string;
}

export interface CashRulesRefusal {
  readonly field: 'above' | 'refundMost';
  readonly typed: string;
}

export function setCashRules(
  newId: () => string,
  { isBlind, above, refundMost }: TypedCashRules,
  currency: string,
):
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: CashRulesRefusal } {
  const read = above.trim() === '' ? null : readAmount(above, currency);
  if (read?.ok === false) return { ok: false, refusal: { field: 'above', typed: above } };
  const most = refundMost.trim() === '' ? null : readAmount(refundMost, currency);
  if (most?.ok === false) return { ok: false, refusal: { field: 'refundMost', typed: refundMost } };
  const body = {
    ...{ isBlind, recountAbove: read?.amount ?? null },
    refundMost: most?.amount ?? null,
  };
  return { ok: true, drafts: [draft('business.cash', newId(), null, body)] };
}
