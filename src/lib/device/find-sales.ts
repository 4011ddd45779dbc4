/** Finding sales among those this device keeps. */
import { folded, hasWords, wordsIn } from '../core/entry-line/words';
import { readAmount } from '../core/money/amount-text';
import { sum } from '../core/money/units';
import { MOST_FOUND, type FoundSale } from '../core/sale/sale-document';
import type { DeviceDatabase } from './database';

/**
 * Sales whose number, or that of a return of it, begins with what was typed, whose total is that amount, or on which every word of it
 * names something that was sold; all of them when nothing is typed. Newest first, at most 50.
 */
export async function findSales(
  { books }: DeviceDatabase,
  typed: string,
  currency: string,
): Promise<FoundSale[]> {
  const wanted = folded(typed.trim());
  const words = wordsIn(typed);
  const amount = readAmount(wanted, currency);
  const named = new Set<string>();
  if (wanted.length > 1) {
    await books.saleLines.each((line) => {
      if (hasWords([line.name, line.detail], words)) named.add(line.sale);
    });
  }
  const returns = await books.returns.toArray();
  for (const { sale, number } of returns)
    if (wanted.length > 1 && folded(number).startsWith(wanted)) named.add(sale);
  const sales = await books.sales
    .orderBy('id')
    .reverse()
    .filter((sale) => {
      if (wanted === '' || named.has(sale.id)) return true;
      return (
        folded(sale.number).startsWith(wanted) ||
        (amount.ok && sale.total + sale.uplift === amount.amount)
      );
    })
    .limit(MOST_FOUND)
    .toArray();
  const lines = await books.saleLines
    .where('sale')
    .anyOf(sales.map(({ id }) => id))
    .toArray();
  const voids = await books.voids
    .where('sale')
    .anyOf(sales.map(({ id }) => id))
    .toArray();
  return sales.map((sale) => ({
    sale,
    lines: lines.filter((line) => line.sale === sale.id),
    isVoid: voids.some((each) => each.sale === sale.id),
    back: sum(returns.flatMap((each) => (each.sale === sale.id ? each.total : []))),
  }));
}
