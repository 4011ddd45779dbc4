/** What points move: on the account of a customer, against what was given in all. Whole points, and minor units of spend. */
import type { EntryOf } from '../daybook/kinds';
import { minus, type Posting } from './posting';

/** Given to a customer; below nothing, taken. @param of Points, or the reward it counts towards. */
export const pointsTo = (
  customer: string,
  of: string,
  quantity: number,
  more: Pick<Posting, 'line'> = {},
): Posting[] =>
  quantity === 0
    ? []
    : [
        { account: `points:${customer}`, quantity, item: of, ...more },
        { account: 'points:given', quantity: minus(quantity), item: of, ...more },
      ];

export const pointsMoved = ({ body }: EntryOf<'points.moved'>): Posting[] =>
  pointsTo(body.customer, body.of, body.quantity);
