import { z } from 'zod';
import { postingSchema } from '../../journal/posting';
import { amountFromZero, kind, note, percent, placeId, quantity, recordId } from '../kind';
import { backTo, promotionsBack, surchargesBack } from './return-made';
import { serviceCharge } from './business-set';

const discount = z.union([
  z.strictObject({ percent }),
  z.strictObject({ amount: z.int().min(0).max(99_999_999) }),
]);

/**
 * A slip that is kept for later: set aside for a customer who will be back, or a tab that a group
 * runs up. Its lines are entries of their own, so that what two devices add both stays. Setting it
 * again puts it back for everybody. Version 2 brought what comes back and is to pay for it, version 3
 * the order that it hands over, version 4 what points and rewards had paid of what comes back.
 */
export const slipSet = kind(
  4,
  z.strictObject({
    id: recordId,
    sort: z.enum(['aside', 'tab']),
    /** What people call it: a customer, a bench, a table. */
    name: z.string().max(80),
    customer: recordId.nullable(),
    group: z.strictObject({ name: z.string().max(80), percent }).nullable(),
    discount: discount.nullable(),
    service: serviceCharge.nullable(),
    note,
    /** What comes back of earlier sales and is to pay for it. */
    back: z
      .array(
        z.strictObject({
          sale: recordId,
          saleNumber: z.string().max(20),
          slip: recordId,
          soldFrom: placeId,
          reason: z.string().min(1).max(200),
          lines: z
            .array(
              z.strictObject({
                line: z.int().min(0).max(499),
                quantity,
                to: backTo,
                name: z.string().max(200),
                unit: z.string().max(20),
              }),
            )
            .max(500),
          takes: z.array(postingSchema).max(6000),
          surcharges: surchargesBack,
          promotions: promotionsBack,
          comesTo: amountFromZero,
        }),
      )
      .max(20),
    /** The order that it hands over, as it was when it was taken to the counter. */
    handsOver: z
      .strictObject({ id: recordId, number: z.string().max(40), customer: recordId })
      .nullable(),
  }),
  {
    1: (body) => ({ ...body, back: [] }),
    2: (body) => ({ ...body, handsOver: null }),
    3: ({ back, ...body }) => ({
      ...body,
      back: (back as readonly object[]).map((each) => ({ ...each, promotions: [] })),
    }),
  },
);
