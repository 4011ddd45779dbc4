/** Asking for an invoice to be mailed: a command. */
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { privateDraft } from '../daybook/kinds';
import { isMail } from '../customer/mail-address';

export interface AskInvoice {
  readonly newId: () => string;
  /** Random text, at least 16 characters. */
  readonly newSalt: () => string;
  readonly invoice: Pick<Row<'invoices'>, 'id' | 'customer'>;
  readonly to: string;
  readonly event: string | null;
}

export function askInvoice({
  newId,
  newSalt,
  invoice,
  to: typed,
  event,
}: AskInvoice):
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: { readonly code: 'invoice/email-wrong' } } {
  const to = typed.trim();
  if (!isMail(to)) return { ok: false, refusal: { code: 'invoice/email-wrong' } };
  const body = { invoice: invoice.id, customer: invoice.customer };
  return {
    ok: true,
    drafts: [privateDraft('invoice.asked', newId(), body, newSalt(), { to }, event)],
  };
}
