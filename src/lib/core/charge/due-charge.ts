/** What a standing charge comes to on a day of it: its invoice, the number, and the letter. Made by the server alone. */
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft, privateDraft } from '../daybook/kinds';
import { buyerOf, dueOn, invoiceCharge, type InvoiceRefusal } from '../invoice/make-invoice';
import type { Invoicing } from '../invoice/invoice-number';
import type { InvoiceNumber } from '../invoice/number-messages';
import type { OwnRules } from '../invoice/own-lines';

/** Ids of what is made of a charge: the same for ever, so that what is made again is the same. */
export interface ChargeIds {
  readonly invoice: string;
  readonly numbered: string;
  readonly asked: string;
}

export interface DueCharge extends OwnRules {
  readonly charge: Row<'charges'>;
  readonly customer: Row<'customers'>;
  readonly invoicing: Invoicing;
  /** The day of its schedule, and the local day on which it is made. ISO dates. */
  readonly day: string;
  readonly today: string;
  readonly ids: ChargeIds;
  /** Random text of at least 16 characters. */
  readonly newSalt: () => string;
}

export type ChargeMade =
  | { readonly ok: true; readonly invoice: Draft; readonly letter: Draft | null }
  | { readonly ok: false; readonly refusal: InvoiceRefusal };

/** Its invoice, and the letter that is to go out with it. */
export function makeCharge(command: DueCharge): ChargeMade {
  const { charge, customer, invoicing, day, today, ids, newSalt } = command;
  const { currency, pricesIncludeTax, taxRounding, taxes } = command;
  const made = invoiceCharge({
    ...{ newId: () => ids.invoice, salt: newSalt(), invoicing, today },
    ...{ currency, pricesIncludeTax, taxRounding, taxes },
    due: dueOn(today, customer, invoicing),
    ...{ note: charge.note, customer },
    buyer: { ...buyerOf(customer, charge.country), reference: charge.reference },
    ...{ charge: charge.id, day, lines: charge.lines },
  });
  if (!made.ok) return made;
  const asked = { invoice: ids.invoice, customer: customer.id };
  return {
    ok: true,
    invoice: made.drafts[0]!,
    letter:
      charge.isMailed && customer.email !== ''
        ? privateDraft('invoice.asked', ids.asked, asked, newSalt(), { to: customer.email })
        : null,
  };
}

/** That it has its number. */
export const chargeNumbered = (
  { invoice, numbered }: ChargeIds,
  { series, n, number, seal }: InvoiceNumber,
): Draft => draft('invoice.numbered', numbered, null, { invoice, series, n, number, seal });
