/** What moving money between accounts that somebody holds moves. */
import type { EntryOf } from '../daybook/kinds';
import { minus, money, type Posting } from './posting';

/** Minor units. */
export const heldPostings = ({ body }: EntryOf<'held.moved'>): Posting[] => [
  ...money(body.from, body.amount),
  ...money(body.to, minus(body.amount)),
];
