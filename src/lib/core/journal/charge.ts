/** What charging a card for a standing charge moves: money is to come by its way, and less is owed. */
import type { BodyOf } from '../daybook/kinds';
import { minus, money, type Posting } from './posting';

/** Minor units. */
export const chargePaid = ({
  body: { way, customer, amount },
}: {
  readonly body: Pick<BodyOf<'charge.paid'>, 'way' | 'customer' | 'amount'>;
}): Posting[] => [
  ...money(`owed:${way}`, amount, { way }),
  ...money(`customer:${customer}`, minus(amount)),
];
