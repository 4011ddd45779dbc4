/** What a sale moves: what it comes to, line by line, against what was earned, taxed, and handed over. */
import { GONE_SOLD, SERVICE, UNLISTED, UPLIFT } from '../books/names';
import type { Row, Taxed } from '../books/tables';
import type { BodyOf } from '../daybook/kinds';
import type { KeptTax } from '../held/one-purpose';
import { sum } from '../money/units';
import { costOf } from '../sale/cost';
import { GONE_UNCOUNTED, UNCOUNTED, type Account } from './accounts';
import { POINTS } from '../points/promotion-methods';
import { handedOver } from './order';
import { pointsTo } from './points';
import { explained, goods, minus, money, type Posting } from './posting';

type Line = Pick<
  BodyOf<'sale.rung'>['lines'][number],
  'item' | 'quantity' | 'unit' | 'total' | 'tax' | 'cost' | 'isStocked'
> & {
  readonly seller?: string | null | undefined;
  readonly maker?: string | null | undefined;
  readonly account?: string | null | undefined;
  readonly kept?: KeptTax | null | undefined;
  readonly ordered?: { readonly order: string; readonly line: string } | null | undefined;
  readonly points?: number | null | undefined;
  readonly toward?: Readonly<Record<string, number>> | null | undefined;
};

/** The figures of a sale, from its entry or from its rows. Minor units and thousandths. */
export interface SaleFigures {
  readonly slip: string;
  /** Who gets the points that it brings. */
  readonly customer: string | null;
  readonly place: string;
  readonly lines: readonly Line[];
  readonly taxes: BodyOf<'sale.rung'>['taxes'];
  /** With its tax. */
  readonly service: number;
  readonly serviceTax: number;
  /** What card parts paid above the cash price, with its tax. */
  readonly uplift: number;
  readonly upliftTaxes: Readonly<Record<string, Taxed>>;
}

/** What each tax of the uplift is, and what it is worked out on. */
export function upliftTaxesOf(
  uplift: BodyOf<'sale.rung'>['uplift'],
): Readonly<Record<string, Taxed>> {
  if (uplift === undefined) return {};
  const ids = [...new Set([...Object.keys(uplift.tax), ...Object.keys(uplift.base)])].sort();
  return Object.fromEntries(
    ids.map((id) => [id, { base: uplift.base[id] ?? 0, amount: uplift.tax[id] ?? 0 }]),
  );
}

export const figuresOfEntry = (body: BodyOf<'sale.rung'>): SaleFigures => ({
  slip: body.slip,
  customer: body.customer ?? null,
  place: body.place,
  lines: body.lines,
  taxes: body.taxes,
  service: body.service?.total ?? 0,
  serviceTax: sum(Object.values(body.service?.tax ?? {})),
  uplift: body.uplift?.total ?? 0,
  upliftTaxes: upliftTaxesOf(body.uplift),
});

export const figuresOfRows = (
  sale: Row<'sales'>,
  lines: readonly Row<'saleLines'>[],
): SaleFigures => ({ ...sale, lines: [...lines].sort((a, b) => a.line - b.line) });

/** The postings of a sale; each line's add up to nothing by themselves, so that a part of it can come back. */
export function salePostings(sale: SaleFigures): Posting[] {
  const slip = `slip:${sale.slip}` as const;
  const rates = new Map(sale.taxes.map(({ id, rate }) => [id, rate]));
  const taxed = (id: string, amount: number, more: Omit<Posting, 'account'>): Posting[] => {
    const rate = rates.get(id) ?? '';
    return money(`tax:${id}@${rate}`, minus(amount), { tax: id, rate, ...more });
  };
  const postings: Posting[] = [{ account: slip, amount: 0, documents: 1 }];
  sale.lines.forEach((line, at) => {
    const { quantity, unit, total, maker, seller, account } = line;
    if (account != null) {
      // Paid in, and nothing is sold.
      postings.push(
        ...money(slip, total, { line: at }),
        ...money(account as Account, minus(total), { line: at }),
        ...(line.kept == null ? [] : soldWith(line.kept, at)),
      );
      return;
    }
    const item = line.item ?? UNLISTED;
    const where = { item, line: at };
    const whose = {
      ...(maker == null ? {} : { maker }),
      ...(seller == null ? {} : { seller }),
    };
    const tax = sum(Object.values(line.tax));
    const cost = costOf(line) ?? 0;
    const isCounted = line.item !== null && line.isStocked;
    const [from, to] = isCounted ? [sale.place, GONE_SOLD] : [UNCOUNTED, GONE_UNCOUNTED];
    postings.push(
      ...money(slip, total, where),
      ...money('sales', minus(total - tax), { ...where, ...whose }),
      ...Object.entries(line.tax).flatMap(([id, amount]) => taxed(id, amount, where)),
      ...money('cost', cost, where),
      ...money('goods', minus(cost), where),
      ...goods(from, to, quantity, { ...where, things: thingsOf(unit, quantity) }),
      ...(line.ordered == null ? [] : handedOver(line.ordered, quantity)),
      ...(sale.customer === null ? [] : brought(sale.customer, line, at)),
    );
  });
  const beside = (item: string, account: 'service' | 'uplift', total: number, tax: number) => {
    postings.push(...money(slip, total, { item }), ...money(account, minus(total - tax), { item }));
  };
  beside(SERVICE, 'service', sale.service, sale.serviceTax);
  // What the lines do not have of a tax is the service charge's.
  const asService = sale.service === 0 && sale.serviceTax === 0 ? {} : { item: SERVICE };
  for (const { id, base, amount } of sale.taxes) {
    const ofLines = sum(sale.lines.map(({ tax }) => tax[id] ?? 0));
    const rest = base === 0 ? asService : { ...asService, base: minus(base) };
    postings.push(...taxed(id, amount - ofLines, rest));
  }
  beside(
    UPLIFT,
    'uplift',
    sale.uplift,
    sum(Object.values(sale.upliftTaxes).map(({ amount }) => amount)),
  );
  for (const [id, { base, amount }] of Object.entries(sale.upliftTaxes))
    postings.push(
      ...taxed(id, amount, { item: UPLIFT, ...(base === 0 ? {} : { base: minus(base) }) }),
    );
  return explained(postings);
}

/** A voucher for goods of one tax is taxed when it is sold. */
const soldWith = ({ id, rate, amount, base }: KeptTax, line: number): Posting[] => [
  ...money(`tax:${id}@${rate}`, minus(amount), {
    ...{ tax: id, rate, line },
    ...(base === 0 ? {} : { base: minus(base) }),
  }),
  ...money('prepaid-tax', amount, { line }),
];

const brought = (customer: string, { points, toward }: Line, line: number): Posting[] => [
  ...pointsTo(customer, POINTS, points ?? 0, { line }),
  ...Object.entries(toward ?? {}).flatMap(([reward, spend]) =>
    pointsTo(customer, reward, spend, { line }),
  ),
];

/** How many things a line is: what is weighed or timed is one thing. Never below minus the lot. */
export function thingsOf(unit: string, quantity: number): number {
  return unit === '' ? Math.trunc(quantity / 1000) : Math.sign(quantity);
}
