/** Asking for a receipt to be sent, by e-mail or as a text message: a command. */
import { isMail } from '../customer/mail-address';
import { phoneNumber } from '../customer/phone-number';
import type { Draft } from '../daybook/chain';
import { privateDraft } from '../daybook/kinds';
import type { ReceiptWay } from '../daybook/kinds/receipt-asked';

export interface AskReceipt {
  readonly newId: () => string;
  readonly newSalt: () => string;
  readonly sale: string;
  readonly customer: string | null;
  /** An e-mail address or a telephone number, as typed. */
  readonly to: string;
  /** Language and region of the business: numbers are of that country unless they say another. */
  readonly locale: string;
  readonly isGift: boolean;
}

export type AskReceiptOutcome =
  | {
      readonly ok: true;
      readonly way: ReceiptWay;
      readonly to: string;
      readonly drafts: readonly Draft[];
    }
  | {
      readonly ok: false;
      readonly refusal: {
        readonly code: 'receipt/address-wrong' | 'receipt/number-wrong';
        readonly typed: string;
      };
    };

export function askReceipt(command: AskReceipt): AskReceiptOutcome {
  const { newId, newSalt, sale, customer, locale, isGift } = command;
  const typed = command.to.trim();
  const way = typed.includes('@') ? 'email' : 'text';
  const to = way === 'email' ? addressIn(typed) : phoneNumber(typed, locale);
  if (to === null) {
    const code = way === 'email' ? 'receipt/address-wrong' : 'receipt/number-wrong';
    return { ok: false, refusal: { code, typed } };
  }
  const body = { sale, customer, way, isGift } as const;
  return {
    ok: true,
    way,
    to,
    drafts: [privateDraft('receipt.asked', newId(), body, newSalt(), { to })],
  };
}

const addressIn = (typed: string): string | null => (isMail(typed) ? typed : null);
