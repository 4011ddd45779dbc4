/** Setting up how invoices are headed and numbered: a command. */
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';
import { isCountry } from '../customer/country';
import { isMail } from '../customer/mail-address';
import { ibanOf, isIban } from './iban';
import type { Invoicing } from './invoice-number';

/** As its form holds it. */
export interface TypedInvoicing {
  readonly name: string;
  readonly address: string;
  readonly country: string;
  readonly taxNumber: string;
  readonly email: string;
  readonly iban: string;
  readonly bic: string;
  readonly holder: string;
  readonly series: string;
  readonly isByYear: boolean;
  readonly digits: string;
  readonly first: string;
  readonly terms: string;
  readonly foot: string;
}

export type InvoicingRefusal = { readonly field: string } & (
  | { readonly code: 'invoicing/no-name' }
  | { readonly code: 'invoicing/no-address' }
  | { readonly code: 'invoicing/country-wrong'; readonly typed: string }
  | { readonly code: 'invoicing/email-wrong'; readonly typed: string }
  | { readonly code: 'invoicing/iban-wrong'; readonly typed: string }
  | { readonly code: 'invoicing/bic-wrong'; readonly typed: string }
  | { readonly code: 'invoicing/series-wrong'; readonly typed: string }
  | {
      readonly code: 'invoicing/whole-wrong';
      readonly typed: string;
      readonly least: number;
      readonly most: number;
    }
);

export type InvoicingOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: InvoicingRefusal };

const refuse = (refusal: InvoicingRefusal): InvoicingOutcome => ({ ok: false, refusal });

const WHOLE = {
  digits: { least: 1, most: 8 },
  first: { least: 1, most: 9_999_999 },
  terms: { least: 0, most: 365 },
} as const;

export function setInvoicing(newId: () => string, typed: TypedInvoicing): InvoicingOutcome {
  const name = typed.name.trim().slice(0, 80);
  if (name === '') return refuse({ code: 'invoicing/no-name', field: 'name' });
  const address = typed.address.trim().slice(0, 300);
  if (address === '') return refuse({ code: 'invoicing/no-address', field: 'address' });
  const country = typed.country.trim().toUpperCase();
  if (!isCountry(country))
    return refuse({ code: 'invoicing/country-wrong', field: 'country', typed: typed.country });
  const email = typed.email.trim();
  if (email !== '' && !isMail(email))
    return refuse({ code: 'invoicing/email-wrong', field: 'email', typed: email });
  const iban = ibanOf(typed.iban);
  if (iban !== '' && !isIban(iban))
    return refuse({ code: 'invoicing/iban-wrong', field: 'iban', typed: typed.iban });
  const bic = typed.bic.toUpperCase().replaceAll(/\s/g, '');
  if (bic !== '' && !/^[A-Z]{6}[A-Z0-9]{2}([A-Z0-9]{3})?$/.test(bic))
    return refuse({ code: 'invoicing/bic-wrong', field: 'bic', typed: typed.bic });
  const series = typed.series.trim();
  if (!/^[A-Za-z0-9/-]{0,10}$/.test(series))
    return refuse({ code: 'invoicing/series-wrong', field: 'series', typed: series });
  const wholes: Record<keyof typeof WHOLE, number> = { digits: 0, first: 0, terms: 0 };
  for (const field of ['digits', 'first', 'terms'] as const) {
    const { least, most } = WHOLE[field];
    const text = typed[field].trim();
    const whole = /^\d{1,9}$/.test(text) ? Number(text) : Number.NaN;
    if (!(whole >= least && whole <= most))
      return refuse({ code: 'invoicing/whole-wrong', field, typed: typed[field], least, most });
    wholes[field] = whole;
  }
  const holder = typed.holder.trim().slice(0, 80);
  const taxNumber = typed.taxNumber.trim().slice(0, 40);
  const body: Invoicing = {
    vendor: { name, address, country, taxNumber, email, iban, bic, holder },
    ...{ series, isByYear: typed.isByYear, ...wholes },
    foot: typed.foot.trim().slice(0, 500),
  };
  return { ok: true, drafts: [draft('business.invoicing', newId(), null, body)] };
}

/** What stands in the form: as it is set up, or what most begin with. */
export const typedInvoicing = (
  known: Invoicing | null,
  begin: { readonly name: string; readonly country: string },
): TypedInvoicing =>
  known === null
    ? {
        ...{ name: begin.name, country: begin.country, address: '', taxNumber: '', email: '' },
        ...{ iban: '', bic: '', holder: '', series: 'R', isByYear: true, digits: '4', first: '1' },
        ...{ terms: '14', foot: '' },
      }
    : {
        ...known.vendor,
        ...{ series: known.series, isByYear: known.isByYear, foot: known.foot },
        ...{ digits: String(known.digits), first: String(known.first), terms: String(known.terms) },
      };
