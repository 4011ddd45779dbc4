/** Currencies, languages and time zones by the names people know them by, to choose from. */
import { COUNTRIES } from '$lib/core/founding/countries';
import { currencyCodes } from '$lib/core/money/currency';

interface Named {
  readonly value: string;
  readonly label: string;
}

/** All there are. */
export function currencies(): readonly Named[] {
  const names = new Intl.DisplayNames(['en'], { type: 'currency' });
  return byName(
    currencyCodes.map((value) => ({ value, label: `${names.of(value) ?? ''} (${value})` })),
  );
}

/** What figures and dates can be written as; the one in use is among them, whatever it is. */
export function languages(locale: string): readonly Named[] {
  const names = new Intl.DisplayNames(['en'], { type: 'language' });
  const tags = new Set([locale, ...COUNTRIES.map((country) => country.locale)]);
  return byName([...tags].map((value) => ({ value, label: names.of(value) ?? value })));
}

/** Those that the browser knows, with what their clocks say against UTC now; `zone` is among them. */
export function timeZones(zone: string): readonly Named[] {
  const zones = new Set([zone, ...Intl.supportedValuesOf('timeZone')]);
  return byName(
    [...zones].map((value) => ({
      value,
      label: `${value.replaceAll('_', ' ')} (${offsetOf(value)})`,
    })),
  );
}

function offsetOf(timeZone: string): string {
  const parts = new Intl.DateTimeFormat('en', { timeZone, timeZoneName: 'shortOffset' });
  return parts.formatToParts().find(({ type }) => type === 'timeZoneName')?.value ?? '';
}

/** Countries with defaults of their own. */
export const countries = (): readonly Named[] =>
  byName(COUNTRIES.map(({ code, name }) => ({ value: code, label: name })));

const byName = (all: readonly Named[]): readonly Named[] =>
  all.toSorted((a, b) => a.label.localeCompare(b.label, 'en'));
