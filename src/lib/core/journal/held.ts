/** What moves on accounts that somebody holds without a sale: from one to another, and what ran out. */
import type { EntryOf } from '../daybook/kinds';
import { minus, money, type Posting } from './posting';

/** Minor units. */
export const heldPostings = ({ body }: EntryOf<'held.moved'>): Posting[] => [
  ...money(body.from, body.amount),
  ...money(body.to, minus(body.amount)),
];

/** What was left on a voucher is owed no more. Minor units. */
export const lapsedPostings = ({ body }: EntryOf<'voucher.lapsed'>): Posting[] => [
  ...money(`voucher:${body.number}`, body.amount),
  // Its tax stays paid.
  ...money('breakage', minus(body.amount - (body.kept?.amount ?? 0))),
  ...money('prepaid-tax', minus(body.kept?.amount ?? 0)),
];
