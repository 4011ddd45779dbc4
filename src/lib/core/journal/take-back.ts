/**
 * What takes something back carries the postings of the original with the opposite sign, and works nothing out
 * again: the whole of them, or a part of a line.
 */
import { z } from 'zod';
import { fraction, roundToMinor } from '../money/fraction';
import { recordId } from '../daybook/kind';
import { headOf } from './accounts';
import {
  amountOf,
  FIGURES,
  imbalance,
  moves,
  opposite,
  postingSchema,
  type Posting,
} from './posting';

/** Postings of an entry that are taken back, and whose they are. */
export const takenBackSchema = z
  .strictObject({ of: recordId, postings: z.array(postingSchema).max(6000) })
  .superRefine(({ postings }, context) => {
    const message = imbalance(postings);
    if (message !== null) context.addIssue({ code: 'custom', path: ['postings'], message });
  });
export interface TakenBack {
  readonly of: string;
  readonly postings: readonly Posting[];
}

/** The whole of it. */
export const takeBack = (of: string, original: readonly Posting[]): TakenBack => ({
  of,
  postings: original.map(opposite),
});

export const postingsOf = (taken: readonly TakenBack[]): Posting[] =>
  taken.flatMap(({ postings }) => postings);

/** Everything of a posting but its figures: two that are alike in it can be added up. */
const nameOf = (posting: Posting): string =>
  JSON.stringify([
    posting.account,
    posting.quantity === undefined,
    posting.item,
    posting.line,
    posting.tax,
    posting.rate,
    posting.way,
    posting.seller,
    posting.maker,
    posting.drawer,
    posting.place,
  ]);

/** Postings that are alike, added up; those that come to nothing are left out. */
export function netOf(postings: readonly Posting[]): ReadonlyMap<string, Posting> {
  const sums = new Map<string, Posting>();
  for (const posting of postings) {
    const name = nameOf(posting);
    const before = sums.get(name);
    if (before === undefined) {
      sums.set(name, posting);
      continue;
    }
    const now: Record<string, unknown> = { ...before };
    for (const figure of FIGURES)
      if (posting[figure] !== undefined || before[figure] !== undefined)
        now[figure] = (before[figure] ?? 0) + (posting[figure] ?? 0);
    sums.set(name, now as Posting);
  }
  for (const [name, posting] of sums) if (!moves(posting)) sums.delete(name);
  return sums;
}

/**
 * Rule 3: whether these are postings of the original with the opposite sign, and not more than is left of them.
 * @param before What came back of it already.
 */
export function isTakeBackOf(
  taken: readonly Posting[],
  original: readonly Posting[],
  before: readonly Posting[] = [],
): boolean {
  const left = netOf([...original, ...before]);
  for (const [name, posting] of netOf(taken)) {
    const of = left.get(name);
    if (of === undefined) return false;
    for (const figure of FIGURES) {
      const [back, still] = [posting[figure] ?? 0, of[figure] ?? 0];
      // Towards nothing, and not past it.
      if (back !== 0 && (Math.sign(back) === Math.sign(still) || Math.abs(back) > Math.abs(still)))
        return false;
    }
  }
  return true;
}

/**
 * A part of one line of it: of each posting `R(amount × q / Q)` in all, less what came back before (rules.md,
 * *Returns*). What rounding leaves over goes to the largest of what was earned and taxed: the slip's is what the
 * customer is given, and what goods cost adds up to nothing by itself. With all of it back, nothing is left of the line.
 * @param quantity How much of the line has come back, with this; thousandths, with the sign of the line's.
 * @param of The line's whole quantity.
 */
export const takePartBack = (
  original: readonly Posting[],
  line: number,
  part: Share,
  before: readonly Posting[] = [],
): Posting[] => {
  const isOf = (posting: Posting): boolean => posting.line === line;
  return takeShareBack(original.filter(isOf), () => part, before.filter(isOf));
};

/** So much of so much has come back in all, with this; both of one sign, or nothing. */
export interface Share {
  readonly quantity: number;
  readonly of: number;
}

/**
 * A share of each of these postings, in all, less what came back before; made to add up to nothing as `takePartBack`
 * says. How many sales or parts a posting stands for stays as it is until all of it is voided.
 */
export function takeShareBack(
  original: readonly Posting[],
  shareOf: (posting: Posting) => Share,
  before: readonly Posting[] = [],
): Posting[] {
  const back = netOf(before);
  const parts = [...netOf(original)].map(([name, whole]) => {
    const gone = back.get(name);
    const { quantity, of } = shareOf(whole);
    const { documents: _documents, ...part }: Record<string, unknown> = { ...whole };
    for (const figure of FIGURES) {
      const value = whole[figure];
      if (value === undefined || figure === 'documents') continue;
      const inAll =
        of === 0
          ? 0
          : roundToMinor(fraction(BigInt(value) * BigInt(Math.abs(quantity)), Math.abs(of)));
      part[figure] = 0 - (inAll + (gone?.[figure] ?? 0));
    }
    return part as unknown as Posting;
  });
  return settled(parts).filter(moves);
}

/**
 * What rounding must not touch: what the customer is given, and pairs that add up to nothing by themselves, so that none
 * of it can be theirs.
 */
const AS_ROUNDED: readonly string[] = ['slip', 'cost', 'goods', 'lost', 'makers-share', 'maker'];

/** Amounts made to add up to nothing, by the largest of what was earned and taxed. */
function settled(parts: readonly Posting[]): readonly Posting[] {
  const over = amountOf(parts);
  if (over === 0) return parts;
  let at = -1;
  parts.forEach(({ account, amount = 0 }, n) => {
    if (AS_ROUNDED.includes(headOf(account))) return;
    if (at === -1 || Math.abs(amount) > Math.abs(parts[at]!.amount ?? 0)) at = n;
  });
  return parts.map((part, n) => (n === at ? { ...part, amount: (part.amount ?? 0) - over } : part));
}

/** What a sale came to that is taken back, with what cards paid above the cash price. Minor units. */
export const takingsIn = ([sale]: readonly TakenBack[]): number =>
  Math.abs(sumOn(sale?.postings ?? [], 'slip'));

/** What went back to whoever had paid it: out of a drawer, or by another way. Minor units. */
export const handedBackIn = ({ postings }: TakenBack): number =>
  0 - sumOn(postings, 'drawer') - sumOn(postings, 'owed');

const sumOn = (postings: readonly Posting[], head: string): number =>
  amountOf(postings.filter(({ account }) => headOf(account) === head));
