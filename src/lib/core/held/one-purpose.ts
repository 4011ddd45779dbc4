/**
 * Vouchers for one purpose: goods of one tax. They are sold with that tax, which is kept with them, and what they pay
 * lowers the tax of the sale they pay for, so that it is paid once (docs/rules.md). Minor units.
 */
import { fraction, roundToMinor } from '../money/fraction';
import { sum } from '../money/units';
import { loweredBy } from '../points/lowered';
import type { SlipTax } from '../pricing/slip';
import { taxesOf } from '../pricing/taxes';

/** A tax, what of it is kept or lowered, and the base that goes with it. */
export interface KeptTax {
  readonly id: string;
  /** What it is called on receipts. */
  readonly name: string;
  readonly rate: string;
  readonly amount: number;
  readonly base: number;
}

/** The tax that is in what a voucher is sold for, whether prices have it in them or not. */
export function taxWithin(
  value: number,
  { id, name, rate }: Pick<SlipTax, 'id' | 'name' | 'rate'>,
): KeptTax {
  const rules = {
    pricesIncludeTax: true,
    taxRounding: 'line',
    taxes: [{ id, name, rate }],
  } as const;
  const [found = {}] = taxesOf([{ net: value, taxes: [id] }], rules);
  const amount = found[id] ?? 0;
  return { id, name, rate, amount, base: value - amount };
}

/** Whether this is what may be kept with what is paid in: of a voucher, all of it; of nothing else. */
export const isKeptWith = (
  kept: KeptTax | undefined,
  { account = '', value }: { readonly account?: string | undefined; readonly value: number },
): boolean =>
  kept === undefined || (account.startsWith('voucher:') && kept.amount + kept.base === value);

/** A voucher, each time that it was sold or made. */
interface Sold {
  readonly value: number;
  readonly kept: KeptTax | null;
}

/** What a voucher is for; null for any goods. */
export const purposeOf = (sold: readonly Pick<Sold, 'kept'>[]): KeptTax | null =>
  sold.flatMap(({ kept }) => kept ?? [])[0] ?? null;

/** What of the tax that is kept with a voucher belongs to so much of it: `R(tax × part / value)`. */
export function keptOf(sold: readonly Sold[], part: number): KeptTax | null {
  const purpose = purposeOf(sold);
  if (purpose === null) return null;
  const value = sum(sold.map((each) => each.value));
  const all = sum(sold.map(({ kept }) => kept?.amount ?? 0));
  const amount = value === 0 ? 0 : roundToMinor(fraction(BigInt(all) * BigInt(part), value));
  return { ...purpose, amount, base: part - amount };
}

/** A line of the sale, as far as a voucher asks for it. */
export interface PurposeLine {
  readonly account?: string | null | undefined;
  /** By tax id, of each tax that it carries. */
  readonly tax: Readonly<Record<string, number>>;
  /** With tax. */
  readonly total: number;
}

/** A sale so far, as a part by such a voucher finds it. */
export interface PurposeSale {
  readonly lines: readonly PurposeLine[];
  /** What it comes to with tax, and its taxes. */
  readonly total: number;
  readonly taxes: readonly Pick<KeptTax, 'id' | 'rate' | 'amount' | 'base'>[];
  /** The parts that were taken before, in order. */
  readonly before: readonly PurposePart[];
}

/** A part of a payment, as far as it lowers taxes. */
export interface PurposePart {
  readonly clears: number;
  readonly held?: { readonly lowers?: KeptTax | undefined } | null | undefined;
  readonly promotion?:
    | { readonly lowers: readonly Pick<KeptTax, 'id' | 'amount' | 'base'>[] }
    | null
    | undefined;
}

/** Goods that carry this tax and no other. */
export const isFor = ({ account, tax }: PurposeLine, id: string): boolean =>
  account == null && Object.keys(tax).length === 1 && Object.hasOwn(tax, id);

const clearedFor = (before: readonly PurposePart[], id: string): readonly number[] =>
  before.flatMap(({ clears, held }) => (held?.lowers?.id === id ? clears : []));

/**
 * What of a sale can be paid by vouchers for goods of a tax: their total, less what such vouchers paid before and the
 * share of what points and rewards paid, which pay for all goods alike.
 */
export function payableFor(id: string, { lines, total, before }: PurposeSale): number {
  const goods = sum(lines.filter((line) => isFor(line, id)).map((line) => line.total));
  if (goods <= 0 || total <= 0) return 0;
  const promoted = sum(
    before.flatMap(({ promotion, clears }) => (promotion == null ? [] : clears)),
  );
  const share = Math.ceil((goods * promoted) / total);
  return Math.max(0, goods - share - sum(clearedFor(before, id)));
}

/**
 * What a part by such a voucher lowers its tax by: of the tax `a` of the goods that it is for, of total `T`, all such
 * parts `P` so far lower `R(a × P / T)`, the nth by the difference to what those before it did; never more than is
 * left of the tax.
 */
export function lowersFor({ id, name, rate }: KeptTax, clears: number, sale: PurposeSale): KeptTax {
  const own = sale.lines.filter((line) => isFor(line, id));
  const total = sum(own.map((line) => line.total));
  const amount = sum(own.map(({ tax }) => tax[id] ?? 0));
  const [now] = loweredBy(
    total,
    [{ id, amount, base: total - amount }],
    [...clearedFor(sale.before, id), clears],
  ).at(-1)!;
  const lowered = sale.before.flatMap(({ held, promotion }) =>
    [held?.lowers ?? [], promotion?.lowers ?? []].flat().filter((each) => each.id === id),
  );
  // Its rate may have changed since: it is the sale's tax that is paid already.
  const whole = sale.taxes.find((each) => each.id === id) ?? { rate, amount, base: total - amount };
  const within = (figure: 'amount' | 'base'): number =>
    Math.max(0, Math.min(now![figure], whole[figure] - sum(lowered.map((each) => each[figure]))));
  return { id, name, rate: whole.rate, amount: within('amount'), base: within('base') };
}
