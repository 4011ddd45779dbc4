/** The first entries of a business: itself, its owner, its taxes. */
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';
import { RIGHTS } from '../people/rights';
import type { CountryDefaults } from './countries';

export interface FoundBusiness {
  readonly newId: () => string;
  readonly name: string;
  readonly owner: { readonly id: string; readonly name: string };
  readonly country: CountryDefaults;
  readonly currency: string;
  /** The device's own, where it is known. */
  readonly timeZone: string;
}

/** Drafts in the order in which they must be written: the owner before what an owner may set. */
export function foundBusiness(command: FoundBusiness): readonly Draft[] {
  const { newId, name, owner, country, currency, timeZone } = command;
  const business = {
    name,
    currency,
    locale: country.locale,
    timeZone,
    pricesIncludeTax: country.pricesIncludeTax,
    taxRounding: 'sale',
    // A step is one of a country's own coins; it says nothing about another currency.
    cashStep: currency === country.currency ? country.cashStep : 1,
    typedSide: 'cash',
    uplift: '0',
    groups: [],
    service: null,
    tips: null,
    carry: null,
    signAbove: null,
    receiptHead: name,
    receiptFoot: '',
    forgetAfter: 0,
  } as const;
  const person = {
    ...owner,
    role: 'owner',
    isActive: true,
    discountUpTo: '0',
  } as const;
  return [
    draft('business.set', newId(), null, business),
    draft('staff.set', newId(), null, { ...person, rights: [...RIGHTS] }),
    ...country.taxes.map((tax, sort) =>
      draft('tax.set', newId(), null, {
        id: newId(),
        ...tax,
        level: 'country',
        on: [],
        sort: sort + 1,
        isActive: true,
      }),
    ),
  ];
}
