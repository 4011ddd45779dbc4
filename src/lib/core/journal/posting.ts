/** What an entry moves on one account: an amount of money or a quantity of goods, never both. */
import { z } from 'zod';
import { sum } from '../money/units';
import { isAccount, type Account } from './accounts';

/** What a posting can be looked up by, beside its account. */
const fields = {
  item: z.string().max(40).optional(),
  /** Which line of the sale, from 0. */
  line: z.int().min(0).max(1000).optional(),
  tax: z.string().max(40).optional(),
  /** Percent, as the sale had it. */
  rate: z.string().max(12).optional(),
  way: z.string().max(40).optional(),
  seller: z.string().max(40).optional(),
  maker: z.string().max(40).optional(),
  drawer: z.string().max(40).optional(),
  /** Where goods are; what has gone, and where it came from, is a place too. */
  place: z.string().max(40).optional(),
  /** The list of goods it is done for. */
  list: z.string().max(40).optional(),
};
export type PostingField = keyof typeof fields;

const MOST = 10_000_000_000_000;
const figure = z.int().min(-MOST).max(MOST);

export const postingSchema = z
  .strictObject({
    account: z
      .string()
      .max(80)
      .refine(isAccount, 'an account that there is, such as drawer:… or sales'),
    /** Minor units: debit positive, credit negative. */
    amount: figure.optional(),
    /** Thousandths of the unit of measure. */
    quantity: figure.optional(),
    ...fields,
    /** How many sales or parts it stands for, things that people count as one, and what a tax is worked out on. */
    documents: figure.optional(),
    things: figure.optional(),
    base: figure.optional(),
  })
  .refine(({ amount, quantity }) => (amount === undefined) !== (quantity === undefined), {
    path: ['amount'],
    message: 'an amount or a quantity, and not both',
  });
export type Posting = Readonly<z.infer<typeof postingSchema>>;

/** What of a posting can be added up. */
export const FIGURES = ['amount', 'quantity', 'documents', 'things', 'base'] as const;
export type Figure = (typeof FIGURES)[number];

/** Money that moves, if any does. Minor units. */
export const money = (
  account: Account,
  amount: number,
  more: Omit<Posting, 'account' | 'amount' | 'quantity'> = {},
): Posting[] =>
  amount === 0 && more.documents === undefined && more.base === undefined
    ? []
    : [{ account, amount, ...more }];

/** Goods that go from one place to another, if any do. Thousandths. */
export const goods = (
  from: string,
  to: string,
  quantity: number,
  more: Omit<Posting, 'account' | 'amount' | 'quantity'>,
): Posting[] => {
  const { things: _things, ...bare } = more;
  return quantity === 0
    ? []
    : [
        { account: `place:${from}`, quantity: minus(quantity), place: from, ...bare },
        { account: `place:${to}`, quantity, place: to, ...more },
      ];
};

/** What their amounts add up to. Minor units. */
export const amountOf = (postings: readonly Posting[]): number =>
  sum(postings.map(({ amount = 0 }) => amount));

/** What does not add up has a name: on an account of its own, so that all of it does. */
export const explained = (
  postings: readonly Posting[],
  more: Omit<Posting, 'account' | 'amount' | 'quantity'> = {},
): Posting[] => [...postings, ...money('unexplained', minus(amountOf(postings)), more)];

/** Whether anything of it is not nothing. */
export const moves = (posting: Posting): boolean =>
  FIGURES.some((figure) => (posting[figure] ?? 0) !== 0);

/** Not -0, which is another number to some. */
export const minus = (figure: number): number => (figure === 0 ? 0 : -figure);

/** The same on the other side, with all that goes with it. */
export function opposite(posting: Posting): Posting {
  const turned: Record<string, unknown> = { ...posting };
  for (const name of FIGURES) {
    const value = posting[name];
    if (value !== undefined) turned[name] = minus(value);
  }
  return turned as Posting;
}

/**
 * Rule 1: amounts add up to nothing, and so do the quantities of each item.
 * @returns What is wrong, or null.
 */
export function imbalance(postings: readonly Posting[]): string | null {
  const byItem = new Map<string, number>();
  for (const { quantity, item = '' } of postings)
    if (quantity !== undefined) byItem.set(item, (byItem.get(item) ?? 0) + quantity);
  const total = amountOf(postings);
  if (total !== 0) return `amounts must add up to nothing, not to ${String(total)}`;
  for (const [item, quantity] of byItem)
    if (quantity !== 0)
      return `quantities of ${item} must add up to nothing, not to ${String(quantity)}`;
  return null;
}
