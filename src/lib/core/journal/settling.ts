/** What settling an event moves: money that came, tips that are shared, people who are paid. Minor units. */
import { NOBODY } from '../books/names';
import type { BodyOf, EntryOf } from '../daybook/kinds';
import type { Account } from './accounts';
import { minus, money, type Posting } from './posting';

/** What of a body its postings are worked out from: rows of the books have it too. */
interface Came {
  readonly body: Pick<BodyOf<'money.came'>, 'amount' | 'fees' | 'from'>;
}
interface Paid {
  readonly body: Pick<BodyOf<'paid.out'>, 'for' | 'whom' | 'amount'> & { readonly from: string };
}

export const moneyCame = ({ body }: Came): Posting[] => [
  ...money('bank', body.amount),
  ...money('card-fees', body.fees),
  ...body.from.flatMap(({ account, amount }) => money(account as Account, minus(amount))),
];

export const tipsShared = ({ body }: EntryOf<'tips.shared'>): Posting[] => [
  ...body.taken.flatMap(({ seller, amount }) => money(`tips:${seller}`, amount)),
  ...body.shares.flatMap(({ person, amount }) => money(`tips:${person}`, minus(amount))),
];

export const paidOut = ({ body }: Paid): Posting[] => [
  ...money(accountOf(body), body.amount),
  ...money(body.from as Account, minus(body.amount)),
];

function accountOf({ for: what, whom }: Paid['body']): Account {
  switch (what) {
    case 'tips':
      return `tips:${whom ?? NOBODY}`;
    case 'maker':
      return 'makers-share';
    case 'commission':
      return 'commission';
    case 'wages':
      return 'spent:wages';
    case 'pitch':
      return 'pitch';
    case 'cost':
      return 'spent:other';
  }
}
