/** The taxes of a sale, worked out again from its lines at the rates that were set up then or lately. */
import type { EntryOf } from '../daybook/kinds';
import { sum } from '../money/units';
import type { SlipTax } from '../pricing/slip';
import { taxesOf, taxTotals, UnknownTaxError, type TaxedLine } from '../pricing/taxes';
import type { Evidence } from './evidence';
import type { Doubt } from './verdict';

type Sale = Pick<EntryOf<'sale.rung'>, 'stamp'> & {
  readonly body: Pick<EntryOf<'sale.rung'>['body'], 'taxes' | 'service'> & {
    readonly lines: readonly Pick<
      EntryOf<'sale.rung'>['body']['lines'][number],
      'net' | 'tax' | 'total'
    >[];
  };
};

export function taxDoubt(entry: Sale, evidence: Evidence): Doubt | null {
  const { stamp, body } = entry;
  const carried = new Set(
    [...body.lines, ...(body.service === undefined ? [] : [body.service])].flatMap(({ tax }) =>
      Object.keys(tax),
    ),
  );
  const taxes = ratesThen(entry, carried, evidence);
  if (taxes === null) return { code: 'sale/tax' };
  const businesses = evidence.history.inForce('business.set', evidence.business, stamp);
  const isRight = businesses.some(({ pricesIncludeTax, taxRounding, service }) =>
    // Of the service charge a tax that comes to nothing is not named.
    [Object.keys(body.service?.tax ?? {}), service?.taxes ?? []].some((ofService) =>
      isAsWorkedOut(entry, { pricesIncludeTax, taxRounding, taxes }, ofService),
    ),
  );
  return isRight ? null : { code: 'sale/tax', found: sum(body.taxes.map(({ amount }) => amount)) };
}

/** The carried taxes in set-up order, each at the rate that the sale says, or null if it never had that. */
function ratesThen(
  { stamp, body }: Sale,
  carried: ReadonlySet<string>,
  { history }: Evidence,
): readonly SlipTax[] | null {
  const found = [...carried].map((id) => {
    const said = body.taxes.find((tax) => tax.id === id);
    return history
      .inForce('tax.set', id, stamp)
      .filter(({ rate }) => said === undefined || rate === said.rate)
      .map(({ name, rate, level, on, sort }) => ({ id, name, rate, level, on, sort }))[0];
  });
  if (found.some((tax) => tax === undefined)) return null;
  return found
    .flatMap((tax) => tax ?? [])
    .sort((a, b) => a.sort - b.sort || (a.id < b.id ? -1 : 1))
    .map(({ sort: _sort, on, ...tax }) => ({ ...tax, on: on.filter((each) => carried.has(each)) }));
}

function isAsWorkedOut(
  { body }: Sale,
  rules: Parameters<typeof taxesOf>[1],
  ofService: readonly string[],
): boolean {
  const known = new Set(rules.taxes.map(({ id }) => id));
  const lines: TaxedLine[] = body.lines.map(({ net, tax }) => ({ net, taxes: Object.keys(tax) }));
  if (body.service !== undefined)
    lines.push({ net: body.service.net, taxes: ofService.filter((id) => known.has(id)) });
  try {
    const worked = taxesOf(lines, rules);
    const totals = taxTotals(lines, worked, rules);
    const onTop = (at: number): number =>
      rules.pricesIncludeTax ? 0 : sum(Object.values(worked[at]!));
    const areLines = body.lines.every(
      ({ net, tax, total }, at) => isSame(tax, worked[at]!) && total === net + onTop(at),
    );
    const last = lines.length - 1;
    const { service } = body;
    const isService =
      service === undefined ||
      (isSame(service.tax, worked[last]!) && service.total === service.net + onTop(last));
    return (
      areLines &&
      isService &&
      body.taxes.length === totals.length &&
      totals.every(({ id, base, amount }) =>
        body.taxes.some((tax) => tax.id === id && tax.base === base && tax.amount === amount),
      )
    );
  } catch (error) {
    if (error instanceof UnknownTaxError || error instanceof RangeError) return false;
    throw error;
  }
}

/** The same amounts; what comes to nothing may be missing. */
function isSame(a: Readonly<Record<string, number>>, b: Readonly<Record<string, number>>): boolean {
  return [...new Set([...Object.keys(a), ...Object.keys(b)])].every(
    (id) => (a[id] ?? 0) === (b[id] ?? 0),
  );
}
