import { z } from 'zod';
import { takenBackSchema } from '../../journal/take-back';
import { day, kind, recordId } from '../kind';
import { broughtAsPostings } from './before-the-journal';

/** A sale that is taken back, or on again. */
const brought = z.strictObject({
  sale: recordId,
  /** As people call the sale. */
  number: z.string().max(20),
  reason: z.string().trim().min(1).max(200),
  /** When it was rung up, so that it is taken off its own day and hour. */
  day,
  hour: z.int().min(0).max(23),
  /** Postings of the sale, and of each part that paid it. */
  takes: z.array(takenBackSchema).min(1).max(51),
  /** The parts that cards paid: the acquirer must give them back as well. */
  cards: z.array(recordId).max(50),
});

/**
 * A sale was made as if it had never been, in the same shift: the goods are back, the money is given
 * back. It carries the postings of all that with the opposite sign. Version 1 carried sums.
 */
export const saleVoided = kind(2, brought, { 1: (body) => broughtAsPostings(body, -1) });

/**
 * A sale had been voided twice, by two devices out of touch: one of the voids is taken back, so that the sale
 * is taken off once. `void` is the entry that is taken back; the postings are the sale's again.
 */
export const voidUndone = kind(2, brought.extend({ void: recordId }), {
  1: (body) => broughtAsPostings(body, 1),
});
