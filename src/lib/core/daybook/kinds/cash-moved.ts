import { z } from 'zod';
import { amountFromZero, kind, pieces } from '../kind';
import { worthOf } from '../../money/worth';
import { picture } from './photo-set';

/** What cash is spent on, in one word each. */
export const SPENT_ON = [
  'pitch',
  'travel',
  'power',
  'wages',
  'goods',
  'supplies',
  'food',
  'other',
] as const;

const UUID = '[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}';
/** Where cash is: a drawer; the safe, which is all cash outside drawers; a bag for the bank; the owner's own pocket. */
const place = (...more: readonly string[]) =>
  z
    .string()
    .regex(
      new RegExp(`^(?:safe|owner|drawer:${UUID}|${more.join('|')})$`),
      'a drawer, the safe, a bag, the owner, or what it is spent on',
    );

/**
 * Cash moved between drawers and what is outside them: paid in and out, to the safe, more float, into a bag, from
 * drawer to drawer. From a drawer to itself is notes changed, which moves nothing and is noted all the same.
 */
export const cashMoved = kind(
  1,
  z
    .strictObject({
      from: place(`bag:${UUID}`, `spent:(?:${SPENT_ON.join('|')})`),
      /** A new bag is made by the entry; its id is the bag's. */
      to: place('bag', `spent:(?:${SPENT_ON.join('|')})`),
      amount: amountFromZero.min(1),
      /** What for, as somebody would want to read it later. */
      what: z.string().trim().max(120),
      /** What stands on the bag. */
      bag: z.string().trim().min(1).max(40).optional(),
      /** Which notes and coins, where they were counted. */
      counts: pieces.optional(),
      /** The bill. */
      photo: picture.optional(),
    })
    .refine(({ from, to }) => from !== to || from.startsWith('drawer:'), {
      path: ['to'],
      message: 'somewhere else: only a drawer has its notes changed',
    })
    .refine(({ to, bag }) => (to === 'bag') === (bag !== undefined), {
      path: ['bag'],
      message: 'the number of the bag, where it goes into one',
    })
    .refine(({ from, to }) => [from, to].some((each) => /^(?:drawer:|safe|bag)/.test(each)), {
      path: ['from'],
      message: 'a drawer, the safe or a bag at one of its ends',
    })
    .refine(({ amount, counts }) => counts === undefined || worthOf(counts) === amount, {
      path: ['amount'],
      message: 'the amount must be what the notes and coins add up to',
    }),
);
