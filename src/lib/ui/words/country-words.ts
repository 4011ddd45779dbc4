/** Countries by the names that people have for them. */
import { countries, countryName } from '../../core/customer/country';
import type { ChoiceOption } from '../forms/Choice.svelte';

/** To be chosen from, in the order of their names. @param locale BCP 47. */
export function countryChoices(locale: string): readonly ChoiceOption[] {
  const collator = new Intl.Collator(locale);
  return countries()
    .map((value) => ({ value, label: countryName(value, locale) }))
    .sort((a, b) => collator.compare(a.label, b.label));
}
