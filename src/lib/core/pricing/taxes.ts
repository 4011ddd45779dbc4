/** Tax of a slip's lines (docs/rules.md, "A slip", steps 6 to 8). */
import { add, fraction, over, roundToMinor, times, ZERO, type Fraction } from '../money/fraction';
import { shareByValues } from '../money/apportion';
import { rateOf, sum } from '../money/units';
import type { QuotedTax, SlipTax } from './slip';

/** A line, or the service charge, as far as tax is concerned. */
export interface TaxedLine {
  /** Minor units after all discounts. */
  readonly net: number;
  readonly taxes: readonly string[];
}

export interface TaxRules {
  readonly pricesIncludeTax: boolean;
  readonly taxRounding: 'line' | 'sale';
  readonly taxes: readonly SlipTax[];
}

/** A line names a tax, or a tax names another, that the slip does not have. */
export class UnknownTaxError extends RangeError {
  constructor(readonly tax: string) {
    super(`tax "${tax}" is not among the slip's taxes, or stands after the tax charged on it`);
    this.name = 'UnknownTaxError';
  }
}

const ONE = fraction(1);
const MILLION = 1_000_000;

interface Rate {
  readonly id: string;
  /** Effective rate, tax on tax included. */
  readonly e: Fraction;
}

interface Group {
  readonly rates: readonly Rate[];
  /** Σ e */
  readonly all: Fraction;
  readonly at: number[];
}

/**
 * The tax of every line, by tax id.
 *
 * Units: minor units. Rounding and sharing as the rules say, per line or per sale.
 * @returns One record per line, in the same order.
 * @throws {UnknownTaxError}
 */
export function taxesOf(lines: readonly TaxedLine[], rules: TaxRules): Record<string, number>[] {
  const found = lines.map((): Record<string, number> => ({}));
  const note = (at: number, id: string, amount: number): void => {
    found[at]![id] = amount;
  };
  const groups = groupsOf(lines, rules.taxes);
  if (!rules.pricesIncludeTax && rules.taxRounding === 'sale') {
    onTopPerSale(lines, groups, rules.taxes, note);
    return found;
  }
  for (const group of groups) {
    if (group.rates.length === 0) continue;
    const nets = group.at.map((at) => lines[at]!.net);
    if (!rules.pricesIncludeTax) {
      group.at.forEach((at, i) => {
        for (const { id, e } of group.rates)
          note(at, id, roundToMinor(times(fraction(nets[i]!), e)));
      });
    } else if (rules.taxRounding === 'line') {
      group.at.forEach((at, i) => {
        includedIn(nets[i]!, group).forEach((amount, k) => note(at, group.rates[k]!.id, amount));
      });
    } else {
      includedPerSale(nets, group).forEach((amounts, k) => {
        amounts.forEach((amount, i) => note(group.at[i]!, group.rates[k]!.id, amount));
      });
    }
  }
  return found;
}

/** Base and amount of each tax that any line carries, in set-up order (step 8). */
export function taxTotals(
  lines: readonly TaxedLine[],
  taxOfLines: readonly Readonly<Record<string, number>>[],
  rules: TaxRules,
): QuotedTax[] {
  return rules.taxes.flatMap(({ id }) => {
    const at = lines.flatMap((line, i) => (line.taxes.includes(id) ? [i] : []));
    if (at.length === 0) return [];
    const base = at.map((i) => {
      const inIt = rules.pricesIncludeTax ? sum(Object.values(taxOfLines[i]!)) : 0;
      return lines[i]!.net - inIt;
    });
    return [{ id, base: sum(base), amount: sum(at.map((i) => taxOfLines[i]![id] ?? 0)) }];
  });
}

/** Tax inside one net amount, shared over the group's taxes. */
function includedIn(net: number, group: Group): number[] {
  const base = roundToMinor(over(fraction(net), add(ONE, group.all)));
  return shareInside(net - base, group);
}

/** Per tax of the group, what falls on each of its lines when the whole sale is rounded once. */
function includedPerSale(nets: readonly number[], group: Group): number[][] {
  const amounts = includedIn(sum(nets), group);
  const whole = add(ONE, group.all);
  return group.rates.map(({ e }, k) =>
    shareByValues(
      amounts[k]!,
      nets.map((net) => over(times(fraction(net), e), whole)),
    ),
  );
}

function shareInside(tax: number, group: Group): number[] {
  if (group.all.n === 0n) return group.rates.map(() => 0);
  return shareByValues(
    tax,
    group.rates.map(({ e }) => over(times(fraction(tax), e), group.all)),
  );
}

function onTopPerSale(
  lines: readonly TaxedLine[],
  groups: readonly Group[],
  taxes: readonly SlipTax[],
  note: (at: number, id: string, amount: number) => void,
): void {
  for (const { id } of taxes) {
    const carriers = groups
      .flatMap((group) => {
        const rate = group.rates.find((r) => r.id === id);
        return rate === undefined ? [] : group.at.map((at) => ({ at, e: rate.e }));
      })
      .sort((a, b) => a.at - b.at);
    const values = carriers.map(({ at, e }) => times(fraction(lines[at]!.net), e));
    const amount = roundToMinor(values.reduce(add, ZERO));
    shareByValues(amount, values).forEach((share, i) => note(carriers[i]!.at, id, share));
  }
}

/** Lines with the same set of taxes, in order of first appearance. */
function groupsOf(lines: readonly TaxedLine[], taxes: readonly SlipTax[]): Group[] {
  const known = new Set(taxes.map((tax) => tax.id));
  const groups = new Map<string, Group>();
  lines.forEach((line, at) => {
    for (const id of line.taxes) if (!known.has(id)) throw new UnknownTaxError(id);
    const carried = taxes.filter((tax) => line.taxes.includes(tax.id));
    const key = carried.map((tax) => tax.id).join(' ');
    let group = groups.get(key);
    if (group === undefined) {
      const rates = effectiveRates(carried, known);
      group = { rates, all: rates.reduce((all, { e }) => add(all, e), ZERO), at: [] };
      groups.set(key, group);
    }
    group.at.push(at);
  });
  return [...groups.values()];
}

/** e = r × (1 + Σ e of those taxes it is charged on that the line carries too). */
function effectiveRates(carried: readonly SlipTax[], known: ReadonlySet<string>): Rate[] {
  const rates: Rate[] = [];
  for (const tax of carried) {
    let under = ONE;
    for (const id of tax.on ?? []) {
      if (!known.has(id)) throw new UnknownTaxError(id);
      const lower = rates.find((rate) => rate.id === id);
      if (lower !== undefined) under = add(under, lower.e);
      else if (carried.some((other) => other.id === id)) throw new UnknownTaxError(id);
    }
    rates.push({ id: tax.id, e: times(fraction(rateOf(tax.rate), MILLION), under) });
  }
  return rates;
}
