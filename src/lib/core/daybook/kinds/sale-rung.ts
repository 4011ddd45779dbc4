import { z } from 'zod';
import { sum } from '../../money/units';
import { amount, cost, day, kind, name, note, percent, placeId, quantity, recordId } from '../kind';

const line = z.strictObject({
  /** Null for something that is not listed. */
  item: recordId.nullable(),
  name,
  detail: z.string().max(80),
  unit: z.string().max(12),
  quantity,
  /** Minor units per unit of measure. */
  price: amount,
  gross: amount,
  /** Line, standing and whole discounts together. */
  discount: amount,
  net: amount,
  /** Minor units by tax id. */
  tax: z.record(recordId, amount),
  /** With tax. */
  total: amount,
  /** Thousandths of a minor unit per unit of measure, as known then. */
  cost: cost.nullable(),
  isStocked: z.boolean(),
});

const tax = z.strictObject({ id: recordId, name, rate: percent, base: amount, amount });

/**
 * A slip was rung up. The entry carries every figure as it was worked out and shown: no later
 * change of prices or taxes can touch it.
 */
export const saleRung = kind(
  1,
  z
    .strictObject({
      slip: recordId,
      /** Counts up per device, never used again; people see D3-17. */
      number: z.int().min(1),
      deviceNumber: z.int().min(1),
      /** Where the goods were taken from. */
      place: placeId,
      /** Local day and hour at the event. */
      day,
      hour: z.int().min(0).max(23),
      lines: z.array(line).min(1).max(500),
      taxes: z.array(tax).max(50),
      /** What the sale came to, with tax. */
      total: amount,
      /** Entries of the parts that paid it. */
      payments: z.array(recordId).max(50),
      note,
    })
    .refine(({ lines, total }) => sum(lines.map((each) => each.total)) === total, {
      path: ['total'],
      message: 'the total must be what the lines add up to',
    })
    .refine(({ lines }) => lines.every((each) => each.gross - each.discount === each.net), {
      path: ['lines'],
      message: 'each line must be its gross less its discount',
    }),
);
