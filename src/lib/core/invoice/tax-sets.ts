/** Which taxes a line by hand may carry: those that goods carry together, each alone, or none. */
import type { SlipTax } from '../pricing/slip';

/** @returns Ids of taxes in force, what most goods carry first and none last; each set once. */
export function taxSets(
  goods: readonly { readonly taxes: readonly string[] }[],
  taxes: readonly SlipTax[],
): readonly (readonly string[])[] {
  const many = new Map<string, number>(taxes.map(({ id }) => [id, 0]));
  for (const item of goods) {
    const carried = taxes.flatMap(({ id }) => (item.taxes.includes(id) ? id : []));
    if (carried.length === 0) continue;
    const key = carried.join(' ');
    many.set(key, (many.get(key) ?? 0) + 1);
  }
  const sets = [...many].sort(([, a], [, b]) => b - a).map(([key]) => key.split(' '));
  return [...sets, []];
}
