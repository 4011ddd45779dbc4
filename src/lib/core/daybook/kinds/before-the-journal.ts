/**
 * Entries from before there was a journal carried sums of what they took back. Here they become postings that add
 * the same to every sum: of what they do not say, such as which tax of which item, on accounts that come to nothing.
 */
import { z } from 'zod';
import { GONE_SOLD, NOBODY, SERVICE, UNLISTED, UPLIFT } from '../../books/names';
import { GONE_UNCOUNTED, UNCOUNTED, type Account } from '../../journal/accounts';
import { explained, goods, minus, moves, opposite, type Posting } from '../../journal/posting';
import { amount, amountFromZero, day, percent, placeId, quantity, recordId, wayId } from '../kind';

const part = z.strictObject({
  payment: recordId,
  way: wayId,
  drawer: recordId.nullable(),
  seller: recordId.nullable(),
  takings: amount,
  surcharge: amountFromZero,
  tip: amountFromZero,
  /** Handed back, or given back to the card. */
  amount: amountFromZero,
  isCard: z.boolean(),
});
const brought = z.object({
  sale: recordId,
  number: z.string().max(20),
  reason: z.string(),
  place: placeId,
  day,
  hour: z.int(),
  units: z.int(),
  takings: amount,
  tax: amount,
  cost: amount,
  items: z
    .array(
      z.strictObject({
        item: z.string().max(40),
        quantity,
        takings: amount,
        tax: amount,
        isStocked: z.boolean(),
      }),
    )
    .max(510),
  taxes: z.array(z.strictObject({ tax: recordId, rate: percent, base: amount, amount })).max(100),
  parts: z.array(part).max(50),
  void: recordId.optional(),
});
type Part = z.infer<typeof part>;
type Brought = z.infer<typeof brought>;

/** Taxes of goods, where it was not said which. */
const UNSPLIT: Account = 'tax:unsplit';

/** @param sign −1 where a sale is taken off, 1 where it is put on again. */
export function broughtAsPostings(
  body: Record<string, unknown>,
  sign: 1 | -1,
): Record<string, unknown> {
  const read = brought.safeParse(body);
  // What was never right is refused by the schema of the version that is in use.
  if (!read.success) return body;
  const { sale, number, reason, day: date, hour, parts, void: of } = read.data;
  return {
    ...(of === undefined ? {} : { void: of }),
    sale,
    number,
    reason,
    day: date,
    hour,
    takes: [
      { of: sale, postings: signed(saleAsPostings(read.data), sign) },
      ...parts.map((each) => ({
        of: each.payment,
        postings: signed(ofPart(each, `slip:${sale}`, each.seller ?? NOBODY), sign),
      })),
    ],
    cards: parts.filter(({ isCard }) => isCard).map(({ payment }) => payment),
  };
}

/** As the sale had them. The slip is not known, so its account is named by the sale, and comes to nothing. */
function saleAsPostings(body: Brought): Posting[] {
  const { sale, place, units, takings, cost, items, taxes } = body;
  return [
    { account: `slip:${sale}`, amount: takings, documents: 1, things: units },
    ...items.flatMap(({ item, quantity: many, takings: brings, tax, isStocked }): Posting[] => {
      const account = item === SERVICE ? 'service' : item === UPLIFT ? 'uplift' : 'sales';
      const isCounted = isStocked && item !== UNLISTED;
      return [
        { account, amount: minus(brings - tax), item },
        { account: UNSPLIT, amount: minus(tax), item },
        ...goods(isCounted ? place : UNCOUNTED, isCounted ? GONE_SOLD : GONE_UNCOUNTED, many, {
          item,
        }),
      ];
    }),
    ...taxes.flatMap(({ tax, rate, base, amount: of }): Posting[] => [
      { account: `tax:${tax}@${rate}`, amount: minus(of), base: minus(base), tax, rate },
      { account: UNSPLIT, amount: of },
    ]),
    { account: 'cost', amount: cost },
    { account: 'goods', amount: minus(cost) },
  ];
}

function ofPart(
  {
    way,
    drawer,
    takings,
    surcharge,
    tip,
    amount: back,
  }: Omit<Part, 'payment' | 'seller' | 'isCard'>,
  slip: Account,
  seller: string,
): Posting[] {
  return [
    { account: slip, amount: minus(takings), way, documents: 1 },
    drawer === null
      ? { account: `owed:${way}`, amount: back, way }
      : { account: `drawer:${drawer}`, amount: back, drawer },
    {
      account: 'rounding',
      amount: minus(back - takings - surcharge - tip),
      way,
      ...(drawer === null ? {} : { drawer }),
    },
    { account: 'surcharge', amount: minus(surcharge), way },
    ...(tip === 0
      ? []
      : [
          {
            account: `tips:${seller}` as const,
            amount: minus(tip),
            way,
            seller,
            documents: 1,
          },
        ]),
  ];
}

/** Whose tip it was that went back is not said before version 2: whoever wrote the entry. */
export const TIPS_OF_WRITER = 'writer';

const reversed = part.omit({ seller: true }).extend({
  slip: recordId,
  clears: amountFromZero,
  reason: z.string(),
  seller: recordId.nullish(),
});

export function partAsPostings(body: Record<string, unknown>): Record<string, unknown> {
  const read = reversed.safeParse(body);
  if (!read.success) return body;
  const { payment, slip, reason, isCard, seller } = read.data;
  const whose = seller === undefined ? TIPS_OF_WRITER : (seller ?? NOBODY);
  const postings = signed(ofPart(read.data, `slip:${slip}`, whose), -1);
  return { payment, slip, reason, isCard, takes: { of: payment, postings } };
}

/** Without those that move nothing, on the side that is asked for; what does not add up has a name. */
const signed = (postings: readonly Posting[], sign: 1 | -1): Posting[] =>
  explained(postings)
    .filter(moves)
    .map((posting) => (sign === 1 ? posting : opposite(posting)));
