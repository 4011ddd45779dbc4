/** Sentences about what is wrong with the set-up of the business. */
import type { BusinessRefusal } from '../../core/founding/set-business';
import type { Fault } from '../forms/faults.svelte';

/** What is wrong, and in which field. */
export const businessFault = (refusal: BusinessRefusal): Fault => ({
  field: refusal.field,
  says: businessRefusalWords(refusal),
});

function businessRefusalWords(refusal: BusinessRefusal): string {
  switch (refusal.code) {
    case 'business/empty':
      return 'Give it a name.';
    case 'business/rate-wrong':
      return `“${refusal.typed}” is not a percentage; type figures such as 20 or 9.975.`;
    case 'business/step-wrong':
      return `“${refusal.typed}” is not a step; type whole minor units, such as 1, 5 or 10.`;
    case 'business/currency-wrong':
      return `“${refusal.typed}” is not a currency by ISO 4217, such as GBP.`;
    case 'business/tips-wrong':
      return `“${refusal.typed}” are not percentages; type up to six apart by blanks, such as 10 15 20.`;
    case 'business/amount-wrong':
      return `“${refusal.typed}” is not an amount; type figures such as 60 or 400.`;
    case 'business/hours-wrong':
      return `“${refusal.typed}” is not a number of hours from 1 to 720.`;
    case 'business/days-wrong':
      return `“${refusal.typed}” is not a number of days from 1 to 365; left empty, it is never.`;
    case 'tax/needed':
      return `${refusal.by.join(', ')} ${refusal.by.length === 1 ? 'is' : 'are'} charged on this tax: change that first.`;
    case 'tax/taken':
      return `There is a tax called ${refusal.name} already.`;
    case 'maker/number-wrong':
      return `“${refusal.typed}” is not a maker’s number; type one from 1 to 99999.`;
    case 'maker/number-taken':
      return `${refusal.name} has that number already.`;
    case 'maker/email-wrong':
      return `“${refusal.typed}” is not an e-mail address; one looks like odile@pots.example. Left empty, statements are given by hand.`;
  }
}
