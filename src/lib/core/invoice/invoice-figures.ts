/**
 * What stands on an invoice or a credit note: its lines without tax, with their taxes, and what they come to. All of it
 * is read off postings, so that it says what the books have, to the minor unit.
 */
import { SERVICE, UPLIFT } from '../books/names';
import type { Row } from '../books/tables';
import type { BodyOf } from '../daybook/kinds';
import { headOf } from '../journal/accounts';
import { loweringPostings, lowersTaxes } from '../journal/payment';
import { opposite, type Posting } from '../journal/posting';
import { sum } from '../money/units';
import { goneOf, leftOf, postingsOfSale, type SoldSale } from '../sale/return-figures';

type Made = BodyOf<'invoice.made'>;
export type InvoiceLine = Made['lines'][number];
export type InvoiceTax = Made['taxes'][number];

/** Minor units; `taxes` are what the lines have of each. */
export interface InvoiceFigures {
  readonly lines: readonly InvoiceLine[];
  readonly taxes: readonly InvoiceTax[];
  readonly total: number;
}

/** What a tax is called and its rate, as the document has it that the figures are of. */
type NamedTax = Pick<InvoiceTax, 'id' | 'name' | 'rate'>;
/** What a line is of, beside its figures. */
type Named = Pick<InvoiceLine, 'name' | 'detail' | 'unit' | 'quantity'>;

/** A line with what it comes to. */
const lineOf = (named: Named, net: number, tax: Readonly<Record<string, number>>): InvoiceLine => ({
  ...named,
  net,
  tax: { ...tax },
  total: net + sum(Object.values(tax)),
});

/** Lines together: what they have of each tax, in the order of the taxes. */
export function figuresOf(
  lines: readonly InvoiceLine[],
  taxes: readonly NamedTax[],
): InvoiceFigures {
  return {
    lines,
    taxes: taxes.flatMap(({ id, name, rate }) => {
      const own = lines.filter(({ tax }) => Object.hasOwn(tax, id));
      if (own.length === 0) return [];
      const amount = sum(own.map(({ tax }) => tax[id] ?? 0));
      return { id, name, rate, base: sum(own.map(({ net }) => net)), amount };
    }),
    total: sum(lines.map(({ total }) => total)),
  };
}

/** What a voucher for goods of one tax pays was sold before, with its tax, and is not sold again. */
const EARNED: readonly string[] = [
  ...['sales', 'service', 'uplift', 'promotions', 'deposit'],
  ...['voucher', 'prepaid-tax'],
];

/** What some postings earned without tax, credits above nothing. Minor units. */
const earnedIn = (postings: readonly Posting[]): number =>
  0 -
  sum(
    postings.flatMap(({ account, amount = 0 }) => (EARNED.includes(headOf(account)) ? amount : [])),
  );

/** Their taxes by id, credits above nothing; those of `known` even where they come to nothing. Minor units. */
function taxesIn(
  postings: readonly Posting[],
  known: readonly string[] = [],
): Record<string, number> {
  const found: Record<string, number> = Object.fromEntries(known.map((id) => [id, 0]));
  for (const { account, tax, amount = 0 } of postings)
    if (tax !== undefined && headOf(account) === 'tax') found[tax] = (found[tax] ?? 0) - amount;
  return Object.fromEntries(
    Object.entries(found).filter(([id, amount]) => amount !== 0 || known.includes(id)),
  );
}

const isSomething = ({ net, total, tax }: InvoiceLine): boolean =>
  net !== 0 || total !== 0 || Object.values(tax).some((amount) => amount !== 0);

/** Beside the goods, a line of its own for each tax, since each was worked out on a part of it. */
function byTax(named: Named, postings: readonly Posting[]): InvoiceLine[] {
  const taxes = taxesIn(postings);
  const bases = Object.keys(taxes).map((id) => ({
    id,
    base:
      0 -
      sum(
        postings.flatMap(({ account, tax, base = 0 }) =>
          headOf(account) === 'tax' && tax === id ? base : [],
        ),
      ),
  }));
  const rest = earnedIn(postings) - sum(bases.map(({ base }) => base));
  return [
    ...bases.map(({ id, base }) => lineOf(named, base, { [id]: taxes[id] ?? 0 })),
    lineOf(named, rest, {}),
  ].filter(isSomething);
}

/** What it was called on the sale; paid-in lines are no goods, and stand on no invoice. */
const nameOf = ({ name, detail, unit }: Row<'saleLines'>, quantity: number): Named => ({
  name,
  detail,
  unit,
  quantity,
});

const isVoucher = (part: readonly Posting[]): boolean =>
  part.some(({ account }) => headOf(account) === 'voucher');

const beside = (name: string, quantity: number): Named => ({
  ...{ name, detail: '', unit: '' },
  quantity,
});

/** One thing, above or below nothing. */
const ONE = 1000;

/**
 * A sale as it stands, in lines: its goods less what came back, what was charged beside them, and less what points and
 * rewards paid.
 */
export function saleFigures(sold: SoldSale): InvoiceFigures {
  const stands = [...postingsOfSale(sold), ...goneOf(sold)];
  const left = leftOf(sold);
  const parts = sold.payments.filter(lowersTaxes);
  const promoted = [
    ...parts.map((part) => loweringPostings({ ...part, slip: sold.sale.slip })),
    ...sold.before.flatMap(({ promotions = [] }) => promotions.map((each) => each.postings)),
  ];
  return figuresFrom(sold, stands, promoted, (line) => left.get(line.line) ?? 0);
}

/** What came back of a sale by one return, in the same lines. Minor units, above nothing. */
export function returnedFigures(
  sold: Pick<SoldSale, 'sale' | 'lines'>,
  back: Pick<Row<'returns'>, 'lines' | 'takes' | 'promotions'>,
): InvoiceFigures {
  const quantities = new Map(back.lines.map(({ line, quantity }) => [line, quantity]));
  return figuresFrom(
    sold,
    back.takes.map(opposite),
    back.promotions.map(({ postings }) => postings.map(opposite)),
    ({ line }) => quantities.get(line) ?? 0,
  );
}

function figuresFrom(
  { sale, lines }: Pick<SoldSale, 'sale' | 'lines'>,
  postings: readonly Posting[],
  promoted: readonly (readonly Posting[])[],
  quantityOf: (line: Row<'saleLines'>) => number,
): InvoiceFigures {
  const goods = lines
    .filter(({ account }) => account === null)
    .toSorted((a, b) => a.line - b.line)
    .map((line) => {
      const own = postings.filter((posting) => posting.line === line.line);
      return lineOf(
        nameOf(line, quantityOf(line)),
        earnedIn(own),
        taxesIn(own, Object.keys(line.tax)),
      );
    })
    .filter((line) => isSomething(line) || line.quantity !== 0);
  const about = (item: string): readonly Posting[] =>
    postings.filter((posting) => posting.line === undefined && posting.item === item);
  const service = about(SERVICE);
  const all = [
    ...goods,
    ...[lineOf(beside('Service charge', ONE), earnedIn(service), taxesIn(service))].filter(
      isSomething,
    ),
    ...byTax(beside('Card price', ONE), about(UPLIFT)),
    ...byTax(
      beside('Points and rewards', -ONE),
      promoted.filter((part) => !isVoucher(part)).flat(),
    ),
    ...byTax(beside('Voucher, sold with its tax', -ONE), promoted.filter(isVoucher).flat()),
  ];
  return figuresOf(all, sale.taxes);
}

/** What of an invoice of a sale was paid already: all that is not owed for it on account. Minor units. */
export const paidAlready = (sold: SoldSale, { total }: Pick<InvoiceFigures, 'total'>): number =>
  Math.max(0, total - owedFor(sold));

/** What is still owed on account of what a sale came to; minor units. */
function owedFor({ payments, before }: SoldSale): number {
  const isOwed = (account: string | undefined): boolean =>
    account?.startsWith('customer:') === true;
  const owed = sum(payments.flatMap(({ held, charge }) => (isOwed(held?.account) ? charge : [])));
  const back = before.flatMap(({ money = [] }) =>
    money.flatMap(({ account, amount }) => (isOwed(account) ? amount : [])),
  );
  return Math.max(0, owed - sum(back));
}

/** What an invoice's own lines, taken back in part or whole, come to. Minor units, above nothing. */
export function creditedFigures(
  invoice: Pick<Row<'invoices'>, 'lines' | 'taxes'>,
  takes: readonly Posting[],
  quantities: ReadonlyMap<number, number>,
): InvoiceFigures {
  const lines = invoice.lines.flatMap((line, at) => {
    const own = takes.flatMap((posting) => (posting.line === at ? opposite(posting) : []));
    const { name, detail, unit, tax } = line;
    const made = lineOf(
      { name, detail, unit, quantity: quantities.get(at) ?? 0 },
      earnedIn(own),
      taxesIn(own, Object.keys(tax)),
    );
    return own.length === 0 ? [] : [made];
  });
  return figuresOf(lines, invoice.taxes);
}
