/** Asking for a receipt to be sent: a command. */
import { z } from 'zod';
import type { Draft } from '../daybook/chain';
import { privateDraft } from '../daybook/kinds';

export interface AskReceipt {
  readonly newId: () => string;
  readonly newSalt: () => string;
  readonly sale: string;
  /** As typed. */
  readonly to: string;
  readonly isGift: boolean;
}

export type AskReceiptOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | {
      readonly ok: false;
      readonly refusal: { readonly code: 'receipt/address-wrong'; readonly typed: string };
    };

export function askReceipt({ newId, newSalt, sale, to, isGift }: AskReceipt): AskReceiptOutcome {
  const address = z.email().max(254).safeParse(to.trim());
  if (!address.success)
    return { ok: false, refusal: { code: 'receipt/address-wrong', typed: to.trim() } };
  const body = { sale, way: 'email', isGift } as const;
  const asked = privateDraft('receipt.asked', newId(), body, newSalt(), { to: address.data });
  return { ok: true, drafts: [asked] };
}
