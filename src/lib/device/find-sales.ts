/** Finding sales among those this device keeps. */
import { findCustomers } from '../core/customer/find-customers';
import { beginsWords, folded, hasWords, wordsIn } from '../core/entry-line/words';
import { readAmount } from '../core/money/amount-text';
import { sum } from '../core/money/units';
import { buyersOf } from '../core/sale/corrections';
import {
  MOST_FOUND,
  SHORTEST,
  SHORTEST_REFERENCE,
  type FoundSale,
} from '../core/sale/sale-document';
import type { DeviceDatabase } from './database';

/**
 * Sales whose number, or that of a return of it, begins with what was typed, whose total is that amount, or on which
 * every word of it names something that was sold; and by who sold or bought, the day (ISO 8601), the reference of a
 * payment or the last four of its card. All of them when nothing is typed. Newest first, at most 50.
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
  const { sellers, buyers, slips } = await about(books, typed);
  const buyerOf = buyersOf(await books.corrections.toArray());
  const sales = await books.sales
    .orderBy('id')
    .reverse()
    .filter((sale) => {
      if (wanted === '' || named.has(sale.id) || slips.has(sale.slip)) return true;
      if (sellers.has(sale.by ?? '') || buyers.has(buyerOf(sale) ?? '') || sale.day === wanted)
        return true;
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

/** Who and what a search may be about beside goods and figures; nobody and nothing for a single letter. */
async function about(
  books: DeviceDatabase['books'],
  typed: string,
): Promise<Readonly<Record<'sellers' | 'buyers' | 'slips', ReadonlySet<string>>>> {
  const wanted = folded(typed.trim());
  const [sellers, buyers, slips] = [new Set<string>(), new Set<string>(), new Set<string>()];
  const words = wordsIn(typed);
  if (wanted.length < SHORTEST || words.length === 0) return { sellers, buyers, slips };
  await books.staff.each(({ id, name }) => void (beginsWords(name, words) && sellers.add(id)));
  for (const { id } of findCustomers(typed, await books.customers.toArray())) buyers.add(id);
  await books.payments.each(({ slip, reference, card }) => {
    const isNamed = wanted.length >= SHORTEST_REFERENCE && folded(reference).startsWith(wanted);
    if (isNamed || card?.last4 === wanted) slips.add(slip);
  });
  return { sellers, buyers, slips };
}
