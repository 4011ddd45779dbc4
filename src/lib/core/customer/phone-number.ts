/** Telephone numbers as people type them. */
import { parsePhoneNumberFromString } from 'libphonenumber-js/min';
import { countryOf, isCountry } from './country';

/**
 * As E.164 has it, such as +441632960123; null if it is no number of its country.
 * @param locale Language and region of the business: numbers are of that country unless they say another.
 */
export function phoneNumber(typed: string, locale: string): string | null {
  const country = countryOf(locale);
  const number = parsePhoneNumberFromString(typed, isCountry(country) ? country : undefined);
  return number?.isPossible() === true ? number.number : null;
}
