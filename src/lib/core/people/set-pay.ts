/** What somebody is paid: a wage for hours on duty, a commission of what was sold. */
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';
import { readAmount } from '../money/amount-text';
import { readPercent } from '../money/percent';

export type PayRefusal =
  | { readonly code: 'pay/wage'; readonly typed: string }
  | { readonly code: 'pay/commission'; readonly typed: string };

/** Nothing typed is nothing paid. */
export function setPay({
  newId,
  person,
  typedWage,
  typedCommission,
  currency,
}: {
  readonly newId: () => string;
  readonly person: string;
  readonly typedWage: string;
  readonly typedCommission: string;
  readonly currency: string;
}):
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: PayRefusal } {
  const wage =
    typedWage.trim() === '' ? { ok: true as const, amount: 0 } : readAmount(typedWage, currency);
  if (!wage.ok) return { ok: false, refusal: { code: 'pay/wage', typed: typedWage } };
  const commission = readPercent(typedCommission);
  if (commission === null)
    return { ok: false, refusal: { code: 'pay/commission', typed: typedCommission } };
  return {
    ok: true,
    drafts: [draft('staff.pay', newId(), null, { person, wage: wage.amount, commission })],
  };
}
