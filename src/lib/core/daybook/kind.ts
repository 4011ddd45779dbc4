/** What every kind of entry is made of, and the schemas that several kinds share. */
import { z } from 'zod';
import { LARGEST_AMOUNT } from '../money/amount-text';
import { isHeld } from '../held/held-account';
import { isKnownCurrency } from '../money/currency';
import { rateOf } from '../money/units';

/** What was written is never changed. */
export type Immutable<T> = T extends readonly (infer E)[]
  ? readonly Immutable<E>[]
  : T extends object
    ? { readonly [F in keyof T]: Immutable<T[F]> }
    : T;

/** One kind of entry: the current version of its shape, and how older ones become it. */
export interface KindSpec<Body extends z.ZodType, Private extends z.ZodType | null = null> {
  readonly v: number;
  readonly body: Body;
  /** What may stand in the private part, which can be missing from any entry; null: nothing. */
  readonly private: Private;
  /** `upgrades[n]` turns a body of version n into one of version n + 1. */
  readonly upgrades: Readonly<
    Record<number, (body: Record<string, unknown>) => Record<string, unknown>>
  >;
}

export function kind<Body extends z.ZodType, Private extends z.ZodType | null = null>(
  v: number,
  body: Body,
  upgrades: KindSpec<Body>['upgrades'] = {},
  ...[isPrivate]: Private extends null ? [] : [Private]
): KindSpec<Body, Private> {
  return { v, body, upgrades, private: (isPrivate ?? null) as Private };
}

/** Ids of records and of places: UUIDs, or the few fixed places such as `base`. */
export const recordId = z.uuid();
export const placeId = z
  .string()
  .max(40)
  .regex(/^[a-z0-9:-]+$/);
/** Ways to pay: a UUID, or `cash`, which every business has. */
export const wayId = z.union([z.literal('cash'), z.uuid()]);
/** A way to pay, or goods that came back and pay for others. */
export const payWayId = z.union([wayId, z.literal('exchange')]);
export const name = z.string().trim().min(1).max(80);
export const note = z.string().max(500);

/** An account that somebody holds (held/held-account.ts). */
export const heldAccount = z
  .string()
  .max(60)
  .refine(isHeld, 'an account that somebody holds, such as voucher:… or credit:…');

/** Minor units; the bound keeps every sum of a business within safe integers. */
export const amount = z
  .int()
  .min(-LARGEST_AMOUNT * 10)
  .max(LARGEST_AMOUNT * 10);
export const amountFromZero = amount.min(0);
/** Whole thousandths of the unit of measure. */
export const quantity = z.int().min(-999_999_999).max(999_999_999);
export const cost = z.int().min(0).max(999_999_999_999);
export const percent = z.string().max(12).refine(isRate, 'a percentage with up to four decimals');
/** What of a tax goes with a voucher for goods of that tax, and its base; minor units (held/one-purpose.ts). */
export const keptTax = z.strictObject({
  id: recordId,
  name,
  rate: percent,
  amount: amountFromZero,
  base: amountFromZero,
});
export const currencyCode = z.string().refine(isKnownCurrency, 'an ISO 4217 code that is known');
export const day = z.iso.date();
export const hourAndMinute = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'a time such as 09:30');
export const timeZone = z
  .string()
  .max(40)
  .regex(/^[A-Za-z_]+(\/[A-Za-z0-9_+-]+){0,2}$/, 'an IANA time zone such as Europe/London');
export const colour = z.string().regex(/^#[0-9a-f]{6}$/, 'a colour such as #1c684c');
/** Notes and coins that were counted: how many of each, by value in minor units. */
export const pieces = z
  .array(z.strictObject({ value: z.int().min(1), count: z.int().min(0).max(99_999) }))
  .max(40);

function isRate(text: string): boolean {
  try {
    rateOf(text);
    return true;
  } catch {
    return false;
  }
}
