/** A card on file takes the place of one at the reader: the server knows what the acquirer calls it. */
import type { CardOnFile } from '../../core/daybook/kinds/customer-card';
import type { CardReader } from './card-reader';

export const fileReader = (customer: string, { scheme, last4 }: CardOnFile): CardReader => ({
  name: 'On file',
  isHere: false,
  read: (amount) =>
    Promise.resolve({
      is: 'card',
      scheme,
      last4,
      entry: 'file',
      sealed: '',
      customer,
      shown: amount,
    }),
});
