/** Countries that addresses are in. */
import {
  getCountries,
  isSupportedCountry,
  parsePhoneNumberFromString,
  type CountryCode,
} from 'libphonenumber-js/min';

/** ISO 3166-1, two letters. */
export const isCountry = (code: string): code is CountryCode =>
  /^[A-Z]{2}$/.test(code) && isSupportedCountry(code);

/** All that there are, ISO 3166-1, two letters each. */
export const countries = (): readonly string[] => getCountries();

/** As people call it. @param locale BCP 47. */
export const countryName = (code: string, locale: string): string =>
  new Intl.DisplayNames(locale, { type: 'region' }).of(code) ?? code;

/** Where somebody may live: by a telephone number that says its country; null where it does not. */
export const countryOfPhone = (phone: string): string | null =>
  parsePhoneNumberFromString(phone)?.country ?? null;

/** Of the business, by its language and region. */
export const countryOf = (locale: string): string => new Intl.Locale(locale).region ?? '';

/** Where somebody most likely lives of whom only a telephone number is known. @param own Of the business, where it has said so. */
export const likelyCountry = (phone: string, own: string | undefined, locale: string): string =>
  countryOfPhone(phone) ?? own ?? countryOf(locale);
