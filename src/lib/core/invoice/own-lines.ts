/** Lines that are written by hand: read as they are typed, and what they come to. Minor units and thousandths. */
import { readAmount, type AmountRefusal } from '../money/amount-text';
import { readQuantity } from '../money/typed';
import { quantityText, sum } from '../money/units';
import { quoteSlip } from '../pricing/quote';
import type { SlipTax } from '../pricing/slip';
import { figuresOf, type InvoiceFigures, type InvoiceLine } from './invoice-figures';

/** A line as its form holds it. */
export interface TypedLine {
  readonly name: string;
  readonly quantity: string;
  /** For one, as prices are shown on the shelf: with tax where they include it. */
  readonly price: string;
  /** Ids of taxes. */
  readonly taxes: readonly string[];
}

/** One that was read. */
export interface OwnLine {
  readonly name: string;
  readonly quantity: number;
  readonly price: number;
  readonly taxes: readonly string[];
}

export interface OwnRules {
  readonly currency: string;
  readonly pricesIncludeTax: boolean;
  readonly taxRounding: 'line' | 'sale';
  /** In force, in set-up order. */
  readonly taxes: readonly SlipTax[];
}

/** What is wrong with a line; lines count from 1. */
export type LineRefusal = { readonly field: string; readonly line: number } & (
  | { readonly code: 'invoice/line-no-name' }
  | { readonly code: 'invoice/line-quantity'; readonly typed: string }
  | { readonly code: 'invoice/line-amount'; readonly refusal: AmountRefusal }
);

export type LinesRead =
  | { readonly ok: true; readonly lines: readonly OwnLine[] }
  | { readonly ok: false; readonly refusal: LineRefusal };

/** All of them, or what is wrong with the first that is. Lines of which nothing is typed are none. */
export function readLines(typed: readonly TypedLine[], currency: string): LinesRead {
  const lines: OwnLine[] = [];
  for (const [at, { name, quantity, price, taxes }] of typed.entries()) {
    if (name.trim() === '' && price.trim() === '') continue;
    const line = at + 1;
    const field = (of: string): string => `lines.${String(at)}.${of}`;
    const refuse = (refusal: LineRefusal): LinesRead => ({ ok: false, refusal });
    if (name.trim() === '')
      return refuse({ code: 'invoice/line-no-name', field: field('name'), line });
    const many = readQuantity(quantity.trim() === '' ? '1' : quantity);
    if (many === null || many <= 0)
      return refuse({
        ...{ code: 'invoice/line-quantity', field: field('quantity'), line },
        typed: quantity,
      });
    const amount = readAmount(price, currency);
    if (!amount.ok)
      return refuse({
        ...{ code: 'invoice/line-amount', field: field('price'), line },
        refusal: amount.refusal,
      });
    lines.push({
      ...{ name: name.trim().slice(0, 200), quantity: many, price: amount.amount },
      taxes: [...taxes],
    });
  }
  return { ok: true, lines };
}

/** What they come to. A tax that was put away since it was chosen is none. */
export function figuresOfOwn(
  lines: readonly OwnLine[],
  { currency, pricesIncludeTax, taxRounding, taxes }: OwnRules,
): InvoiceFigures {
  const { lines: quoted } = quoteSlip({
    ...{ currency, pricesIncludeTax, taxRounding, cashStep: 1, taxes },
    lines: lines.map(({ quantity, price, taxes: carried }) => ({
      ...{ price, quantity: quantityText(quantity) },
      taxes: carried.filter((id) => taxes.some((tax) => tax.id === id)),
    })),
  }).cash;
  const made = lines.map(({ name, quantity }, at): InvoiceLine => {
    const { tax, total } = quoted[at]!;
    const net = total - sum(Object.values(tax));
    return { name, detail: '', unit: '', quantity, net, tax: { ...tax }, total };
  });
  return figuresOf(made, taxes);
}

/** What typed lines come to; or what is wrong with the first that is. */
export function ownFigures({
  lines,
  ...rules
}: OwnRules & { readonly lines: readonly TypedLine[] }):
  | { readonly ok: true; readonly figures: InvoiceFigures }
  | { readonly ok: false; readonly refusal: LineRefusal } {
  const read = readLines(lines, rules.currency);
  return read.ok ? { ok: true, figures: figuresOfOwn(read.lines, rules) } : read;
}
