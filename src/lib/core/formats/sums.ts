/**
 * Slips, payments, shares and returns as JSON documents, for checking the sums from outside
 * (docs/formats.md, "Sums"). What is wrong with a document is said with where it is.
 */
import { z } from 'zod';
import { FEE_KINDS } from '../daybook/kinds/event-groups';
import { feeOf } from '../event/pitch-fee';
import { isKnownCurrency } from '../money/currency';
import { quantityOf, rateOf } from '../money/units';
import { givenBack } from '../payment/give-back';
import { pay, type Payment } from '../payment/pay';
import { MOST_SHARES, shareEqually } from '../payment/shares';
import { quoteSlip } from '../pricing/quote';
import type { Slip } from '../pricing/slip';
import { makersShares } from '../settle/makers-share';
import { matchCards } from '../settle/match-cards';
import { loweredBy } from '../points/lowered';
import { shareTips } from '../settle/share-tips';
import { wageOf } from '../settle/wages';

/** The sums that can be asked for. */
export const SUMS = ['quote', 'pay', 'share', 'return', 'settle'] as const;
export type Sum = (typeof SUMS)[number];

/** Far beyond any slip, and far within the whole numbers that are exact. */
const LARGEST = 1_000_000_000_000;

const amount = z
  .number('an amount in whole minor units')
  .refine(Number.isSafeInteger, 'an amount in whole minor units')
  .refine((n) => Math.abs(n) <= LARGEST, 'an amount of at most a million million minor units');
const amountFromZero = amount.refine((n) => n >= 0, 'an amount that is not below zero');
const percent = decimal('a percentage as text, such as "20" or "9.975"', rateOf);
const quantity = decimal('a quantity as text, such as "3" or "0.385"', quantityOf);
const id = z.string('an id as text').min(1).max(80);
const discount = z.union(
  [z.strictObject({ percent }), z.strictObject({ amount: amountFromZero })],
  'either {"percent": "10"} or {"amount": 200}',
);

const slipSchema = z
  .strictObject({
    currency: z.string().refine(isKnownCurrency, 'an ISO 4217 code').default('GBP'),
    pricesIncludeTax: z.boolean('true or false'),
    taxRounding: z.enum(['line', 'sale'], '"line" or "sale"'),
    cashStep: z.int('a whole number of minor units').min(1).max(100_000).default(1),
    taxes: z
      .array(
        z.strictObject({
          id,
          name: z.string().max(80).default(''),
          rate: percent,
          level: z.string().max(40).optional(),
          on: z.array(id).max(20).optional(),
        }),
      )
      .max(50),
    lines: z
      .array(
        z.strictObject({
          name: z.string().max(200).optional(),
          price: amount,
          otherSidePrice: amount.optional(),
          quantity,
          taxes: z.array(id).max(50),
          extras: z
            .array(z.strictObject({ name: z.string().max(200).optional(), price: amount }))
            .max(50)
            .optional(),
          discount: discount.optional(),
          noDiscount: z.boolean().optional(),
        }),
      )
      .max(5000),
    typedSide: z.enum(['cash', 'card'], '"cash" or "card"').optional(),
    uplift: percent.optional(),
    standingDiscount: percent.optional(),
    discount: discount.optional(),
    serviceCharge: z
      .union(
        [
          z.strictObject({ percent, taxes: z.array(id).max(50) }),
          z.strictObject({ amount: amountFromZero, taxes: z.array(id).max(50) }),
        ],
        'either {"percent": "10", "taxes": []} or {"amount": 200, "taxes": []}',
      )
      .optional(),
  })
  .superRefine(({ taxes, lines, serviceCharge }, context) => {
    const say = (path: (string | number)[], message: string): void =>
      context.addIssue({ code: 'custom', path, message });
    const before = new Set<string>();
    taxes.forEach(({ id: own, on = [] }, at) => {
      if (before.has(own)) say(['taxes', at, 'id'], `"${own}" is the id of another tax already`);
      on.forEach((under, i) => {
        if (!before.has(under))
          say(['taxes', at, 'on', i], `"${under}" is not a tax that stands before this one`);
      });
      before.add(own);
    });
    const know = (carried: readonly string[], path: (string | number)[]): void =>
      carried.forEach((tax, at) => {
        if (!before.has(tax)) say([...path, at], `"${tax}" is not among the slip’s taxes`);
        else if (carried.indexOf(tax) !== at) say([...path, at], `"${tax}" stands here twice`);
      });
    lines.forEach((line, at) => know(line.taxes, ['lines', at, 'taxes']));
    if (serviceCharge !== undefined) know(serviceCharge.taxes, ['serviceCharge', 'taxes']);
  });

const paymentSchema = z
  .strictObject({
    cashTotal: amount,
    cardTotal: amount,
    cashStep: z.int('a whole number of minor units').min(1).max(100_000).optional(),
    ways: z
      .array(
        z.strictObject({
          id,
          side: z.enum(['cash', 'card'], '"cash" or "card"'),
          cash: z.boolean().optional(),
          change: z.boolean().optional(),
          surchargeRate: percent.optional(),
          surchargeFixed: amountFromZero.optional(),
        }),
      )
      .max(50),
    parts: z
      .array(z.strictObject({ way: id, gives: amount.optional(), clears: amount.optional() }))
      .max(1000),
  })
  .superRefine(({ ways }, context) =>
    ways.forEach((way, at) => {
      if (ways.findIndex((each) => each.id === way.id) !== at)
        context.addIssue({
          code: 'custom',
          path: ['ways', at, 'id'],
          message: `"${way.id}" is the id of another way to pay already`,
        });
    }),
  );

const shareSchema = z.strictObject({
  total: amount,
  between: z.int('a whole number of people').min(1).max(MOST_SHARES),
});

const returnSchema = z.strictObject({
  value: amount,
  quantity,
  comesBack: z.array(quantity).max(1000),
});

const minutes = z.int('whole minutes').min(0).max(1_000_000);
const people = <T extends z.ZodType>(each: T) => z.array(each).max(1000);
const time = z.iso.datetime({ offset: true, error: 'a time such as "2026-10-29T09:19:00Z"' });
const cardLine = {
  reference: z.string('a reference as text').max(80),
  amount,
  last4: z.string().regex(/^\d{4}$/, 'the last four figures, such as "4242"'),
  at: time,
};

/** Each of these has one figure or list to work out for an event's settling. */
const settleSchemas = {
  pitch: z.strictObject({
    kind: z.enum(FEE_KINDS),
    takings: amount,
    fixed: amountFromZero.default(0),
    percent: percent.default('0'),
    least: amountFromZero.optional(),
    most: amountFromZero.optional(),
  }),
  tips: z.discriminatedUnion('how', [
    z.strictObject({ how: z.enum(['hours', 'equally']), tips: amount, minutes: people(minutes) }),
    z.strictObject({ how: z.literal('taken'), tips: amount, taken: people(amountFromZero) }),
  ]),
  makers: z.strictObject({
    commission: z.record(id, percent),
    lines: z.array(z.strictObject({ maker: id, net: amount })).max(100_000),
  }),
  wages: z
    .strictObject({ minutes: people(minutes), perHour: people(amountFromZero) })
    .refine(({ minutes: worked, perHour }) => worked.length === perHour.length, {
      path: ['perHour'],
      message: 'as many rates per hour as there are minutes',
    }),
  promotion: z.strictObject({
    total: amount,
    taxes: z.array(z.strictObject({ id, amount, base: amount })).max(50),
    parts: z.array(amountFromZero).max(1000),
  }),
  match: z.strictObject({
    payments: z.array(z.strictObject({ id, ...cardLine })).max(100_000),
    report: z.array(z.strictObject({ line: z.int().min(0), ...cardLine })).max(100_000),
  }),
};
type Settling = keyof typeof settleSchemas;

const settlings: {
  readonly [S in Settling]: (asked: z.infer<(typeof settleSchemas)[S]>) => unknown;
} = {
  pitch: ({ takings, least, most, ...fee }) =>
    feeOf(
      {
        ...fee,
        of: 'gross',
        ...(least === undefined ? {} : { least }),
        ...(most === undefined ? {} : { most }),
      },
      { gross: takings, net: takings },
    ),
  tips: (asked) =>
    shareTips(asked.how, asked.tips, asked.how === 'taken' ? asked.taken : asked.minutes),
  makers: ({ lines, commission }) => makersShares(lines, commission),
  wages: ({ minutes: worked, perHour }) => worked.map((each, at) => wageOf(each, perHour[at]!)),
  promotion: ({ total, taxes, parts }) => loweredBy(total, taxes, parts),
  match: ({ payments, report }) => matchCards(payments, report),
};

const settleSchema = z
  .strictObject({
    pitch: settleSchemas.pitch.optional(),
    tips: settleSchemas.tips.optional(),
    makers: settleSchemas.makers.optional(),
    wages: settleSchemas.wages.optional(),
    promotion: settleSchemas.promotion.optional(),
    match: settleSchemas.match.optional(),
  })
  .refine((asked) => Object.keys(asked).length === 1, {
    message: `one of ${Object.keys(settleSchemas).join(', ')}`,
  });

/** A document may stand alone, or as `settle` beside what is expected of it. */
function settle(document: unknown): unknown {
  const isWrapped = typeof document === 'object' && document !== null && 'settle' in document;
  const asked = settleSchema.parse(isWrapped ? document.settle : document);
  const [which] = Object.keys(asked) as [Settling];
  return (settlings[which] as (asked: unknown) => unknown)(asked[which]);
}

const sums: Readonly<Record<Sum, (document: unknown) => unknown>> = {
  quote: (document) => quoteSlip(slipSchema.parse(document) satisfies Slip),
  pay: (document) => pay(paymentSchema.parse(document) satisfies Payment),
  share: (document) => {
    const { total, between } = shareSchema.parse(document);
    return shareEqually(total, between);
  },
  return: (document) => {
    const read = returnSchema.parse(document);
    return givenBack(read.value, quantityOf(read.quantity), read.comesBack.map(quantityOf));
  },
  settle,
};

/**
 * Works out one document, given as a line of JSON.
 * @returns The result, or `{ error }` with what is wrong and where; never throws for a wrong document.
 * @example workOut('share', '{"total":100,"between":3}') // => [34, 33, 33]
 */
export function workOut(which: Sum, line: string): unknown {
  let document: unknown;
  try {
    document = JSON.parse(line);
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    return { error: `this line is not one JSON document: ${why}` };
  }
  try {
    return sums[which](document);
  } catch (error) {
    if (error instanceof z.ZodError) return { error: sayIssue(error) };
    if (error instanceof RangeError) return { error: error.message };
    throw error;
  }
}

/** The first thing that is wrong, as `lines[2].quantity: …`. */
function sayIssue(error: z.ZodError): string {
  const [issue] = error.issues;
  const where = (issue?.path ?? []).reduce<string>(
    (path, key) =>
      typeof key === 'number'
        ? `${path}[${String(key)}]`
        : `${path === '' ? '' : `${path}.`}${String(key)}`,
    '',
  );
  const what = issue?.message ?? 'not as expected';
  return `${where === '' ? 'the document' : where}: ${what}`;
}

function decimal(message: string, read: (text: string) => unknown) {
  return z.string(message).refine((text) => {
    try {
      read(text);
      return true;
    } catch {
      return false;
    }
  }, message);
}
