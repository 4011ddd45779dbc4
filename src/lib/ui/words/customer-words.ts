/** Sentences about customers. */
import type { CustomerRefusal } from '../../core/customer/set-customer';
import type { ConsentWay } from '../../core/daybook/kinds/customer-consent';

export const consentWords: Readonly<Record<ConsentWay, string>> = {
  spoken: 'said so',
  written: 'signed for it',
  online: 'agreed online',
};

export function customerRefusalWords(refusal: CustomerRefusal): string {
  switch (refusal.code) {
    case 'customer/no-name':
      return 'Give the customer a name; a first name will do.';
    case 'customer/email-wrong':
      return `“${refusal.typed}” is not an e-mail address; it should read like name@street.example.`;
    case 'customer/discount-wrong':
      return `“${refusal.typed}” is not a percentage; type figures from 0 to 100, such as 10.`;
    case 'customer/terms-wrong':
      return `“${refusal.typed}” is not a number of days; type a whole number up to 365.`;
    case 'customer/too-long':
      return `There is too much text under “${refusal.field}”; shorten it.`;
    case 'customer/code-taken':
      return `${refusal.typed} is the card of ${refusal.name} already.`;
    case 'customer/erased':
      return 'This customer has been forgotten; add them anew.';
  }
}
