import { z } from 'zod';
import { isKeptWith } from '../../held/one-purpose';
import { sum } from '../../money/units';
import {
  amount,
  amountFromZero,
  cost,
  day,
  heldAccount,
  keptTax,
  kind,
  name,
  note,
  percent,
  placeId,
  quantity,
  recordId,
} from '../kind';

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
  /** The rest is only there when there is something to say. */
  extras: z
    .array(z.strictObject({ name, price: amount }))
    .max(50)
    .optional(),
  /** The price that was overridden, per unit of measure. */
  listPrice: amount.optional(),
  /** Why the price is another. */
  reason: z.string().max(200).optional(),
  note: z.string().max(200).optional(),
  /** Who is paid for having sold it. */
  seller: recordId.optional(),
  /** Whose goods they are, and what their hang tag says. */
  maker: recordId.optional(),
  tag: z.string().max(40).optional(),
  /** The part of the discount that comes of a customer's or a group's standing discount. */
  standing: amount.optional(),
  /** It is no goods: what it comes to is paid in on this account. */
  account: heldAccount.optional(),
  /** Of a voucher: the last day on which it can be spent. */
  until: day.optional(),
  /** Of a voucher for goods of one tax: that tax of what it is sold for. */
  kept: keptTax.optional(),
  /** Of what is paid on account: the sale whose debt it pays before older ones. */
  pays: recordId.optional(),
  /** The line of an order that is handed over with it, and since version 6 what people call the order. */
  ordered: z
    .strictObject({ order: recordId, line: recordId, number: z.string().max(40).optional() })
    .optional(),
  /** Points that it brings the customer, and what counts of it towards each reward in minor units. */
  points: z.int().min(1).max(999_999_999).optional(),
  toward: z.record(recordId, amountFromZero.min(1)).optional(),
});

/** A charge beside the goods: for service, or what cards paid above the cash price. */
const charge = z.strictObject({ net: amount, tax: z.record(recordId, amount), total: amount });

const earned = z.strictObject({
  points: z.int().min(0).max(999_999_999),
  after: z.int().min(-999_999_999).max(999_999_999),
  /** Rewards that it reached. */
  rewards: z
    .array(z.strictObject({ reward: recordId, name, value: amountFromZero, times: z.int().min(1) }))
    .max(50),
});

const tax = z.strictObject({ id: recordId, name, rate: percent, base: amount, amount });

/**
 * A slip was rung up. The entry carries every figure as it was worked out and shown: no later
 * change of prices or taxes can touch it. Version 2 brought what a slip can hold beside its goods, version 3 what
 * parts paid by card bring above the cash price, version 4 lines that are paid in on an account,
 * version 5 lines of orders, version 6 points and rewards, and which debt is paid,
 * version 7 vouchers for goods of one tax.
 */
export const saleRung = kind(
  7,
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
      customer: recordId.optional(),
      /** The group whose standing discount it is; a customer's own has no name here. */
      standingName: z.string().max(80).optional(),
      /** A line of its own, never discounted. */
      service: charge.optional(),
      /** What card parts were charged above the cash price; not in the total, which is the cash side. */
      uplift: charge.extend({ base: z.record(recordId, amount) }).optional(),
      /** The seller charged cards the cash price. */
      isUpliftWaived: z.literal(true).optional(),
      /** What the customer was told of points and rewards: what they have now as far as the device knew. */
      earned: earned.optional(),
    })
    .refine(
      ({ lines, service, total }) =>
        sum(lines.map((each) => each.total)) + (service?.total ?? 0) === total,
      { path: ['total'], message: 'the total must be what lines and service charge add up to' },
    )
    .refine(({ lines }) => lines.every((each) => each.account === undefined || isPaidIn(each)), {
      path: ['lines'],
      message: 'what is paid in on an account is no goods, and has no tax',
    })
    .refine(
      ({ lines }) => lines.every((each) => each.ordered === undefined || isHandedOver(each)),
      {
        path: ['lines'],
        message: 'what is handed over of an order is goods, and some of them',
      },
    )
    .refine(
      ({ lines, customer }) =>
        lines.every(
          ({ points, toward, account }) =>
            (points === undefined && toward === undefined) ||
            (customer !== undefined && account === undefined),
        ),
      { path: ['lines'], message: 'goods bring points, and a customer gets them' },
    )
    .refine(
      ({ lines, earned: told }) =>
        told === undefined || told.points === sum(lines.map(({ points = 0 }) => points)),
      { path: ['earned'], message: 'the points must be those of the lines' },
    )
    .refine(
      ({ lines }) =>
        lines.every(
          ({ pays, account }) => pays === undefined || account?.startsWith('customer:') === true,
        ),
      { path: ['lines'], message: 'a debt is paid on what a customer owes' },
    )
    .refine(
      ({ lines }) =>
        lines.every(({ kept, account, total }) => isKeptWith(kept, { account, value: total })),
      { path: ['lines'], message: 'a voucher is sold with the tax that is in its value' },
    )
    .refine(({ lines }) => lines.every((each) => each.gross - each.discount === each.net), {
      path: ['lines'],
      message: 'each line must be its gross less its discount',
    }),
  {
    ...{ 1: (body) => body, 2: (body) => body, 3: (body) => body },
    ...{ 4: (body) => body, 5: (body) => body, 6: (body) => body },
  },
);

const isHandedOver = ({ account, quantity: of }: z.infer<typeof line>): boolean =>
  account === undefined && of > 0;

/** An amount and nothing else: above nothing, not discounted, of nothing that could be on a shelf. */
function isPaidIn({
  item,
  tax,
  discount,
  total,
  gross,
  cost: of,
  isStocked,
}: z.infer<typeof line>) {
  const isBare = item === null && of === null && !isStocked && Object.keys(tax).length === 0;
  return isBare && discount === 0 && total === gross && total > 0;
}
