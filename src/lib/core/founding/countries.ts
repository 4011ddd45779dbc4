/**
 * What a business in a country begins with. Everything can be changed afterwards; rates are the
 * general ones as their tax authorities publish them, and change now and then.
 */
export interface CountryDefaults {
  readonly code: string;
  readonly name: string;
  readonly currency: string;
  readonly locale: string;
  readonly timeZone: string;
  readonly pricesIncludeTax: boolean;
  /** Minor units. */
  readonly cashStep: number;
  readonly taxes: readonly { readonly name: string; readonly rate: string }[];
}

const vat = (...rates: readonly string[]) =>
  rates.map((rate, at) => ({ name: at === 0 ? 'VAT' : `VAT ${rate} %`, rate }));

export const COUNTRIES: readonly CountryDefaults[] = [
  c('AU', 'Australia', 'AUD', 'en-AU', 'Australia/Sydney', 5, [{ name: 'GST', rate: '10' }]),
  c('AT', 'Austria', 'EUR', 'de-AT', 'Europe/Vienna', 1, vat('20', '10', '13')),
  c('BE', 'Belgium', 'EUR', 'nl-BE', 'Europe/Brussels', 5, vat('21', '12', '6')),
  c('CA', 'Canada', 'CAD', 'en-CA', 'America/Toronto', 5, [{ name: 'GST', rate: '5' }], false),
  c('DK', 'Denmark', 'DKK', 'da-DK', 'Europe/Copenhagen', 50, vat('25')),
  c('FR', 'France', 'EUR', 'fr-FR', 'Europe/Paris', 1, vat('20', '10', '5.5')),
  c('DE', 'Germany', 'EUR', 'de-DE', 'Europe/Berlin', 1, vat('19', '7')),
  c('IE', 'Ireland', 'EUR', 'en-IE', 'Europe/Dublin', 5, vat('23', '13.5', '9')),
  c('IT', 'Italy', 'EUR', 'it-IT', 'Europe/Rome', 1, vat('22', '10', '4')),
  c('JP', 'Japan', 'JPY', 'ja-JP', 'Asia/Tokyo', 1, vat('10', '8')),
  c('KW', 'Kuwait', 'KWD', 'en-KW', 'Asia/Kuwait', 5, []),
  c('NL', 'Netherlands', 'EUR', 'nl-NL', 'Europe/Amsterdam', 5, vat('21', '9')),
  c('NZ', 'New Zealand', 'NZD', 'en-NZ', 'Pacific/Auckland', 10, [{ name: 'GST', rate: '15' }]),
  c('NO', 'Norway', 'NOK', 'nb-NO', 'Europe/Oslo', 100, vat('25', '15')),
  c('PL', 'Poland', 'PLN', 'pl-PL', 'Europe/Warsaw', 1, vat('23', '8', '5')),
  c('ES', 'Spain', 'EUR', 'es-ES', 'Europe/Madrid', 1, vat('21', '10', '4')),
  c('SE', 'Sweden', 'SEK', 'sv-SE', 'Europe/Stockholm', 100, vat('25', '12', '6')),
  c('CH', 'Switzerland', 'CHF', 'de-CH', 'Europe/Zurich', 5, vat('8.1', '2.6')),
  c('GB', 'United Kingdom', 'GBP', 'en-GB', 'Europe/London', 1, vat('20', '5', '0')),
  c('US', 'United States', 'USD', 'en-US', 'America/New_York', 1, [], false),
];

/** The country of a language tag such as en-GB, or null if it says none that is known. */
export const countryOf = (locale: string): CountryDefaults | null =>
  COUNTRIES.find(({ code }) => locale.toUpperCase().endsWith(`-${code}`)) ?? null;

function c(
  code: string,
  name: string,
  currency: string,
  locale: string,
  timeZone: string,
  cashStep: number,
  taxes: CountryDefaults['taxes'],
  pricesIncludeTax = true,
): CountryDefaults {
  return { code, name, currency, locale, timeZone, pricesIncludeTax, cashStep, taxes };
}
