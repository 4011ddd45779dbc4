/** Telephone numbers as people type them. */
import { parsePhoneNumberFromString, type CountryCode } from 'libphonenumber-js/min';

/**
 * As E.164 has it, such as +441632960123; null if it is no number of its country.
 * @param locale Language and region of the business: numbers are of that country unless they say another.
 */
export function phoneNumber(typed: string, locale: string): string | null {
  const country = new Intl.Locale(locale).region as CountryCode | undefined;
  const number =
    country === undefined
      ? parsePhoneNumberFromString(typed)
      : parsePhoneNumberFromString(typed, country);
  return number?.isPossible() === true ? number.number : null;
}
