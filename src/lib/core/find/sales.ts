/** Sales that a device keeps, made ready once so that every key finds among them at once. */
import type { Row } from '../books/tables';
import { findCustomers } from '../customer/find-customers';
import { Joined } from '../customer/joined';
import { beginsWords, folded, wordsIn } from '../entry-line/words';
import { readAmount } from '../money/amount-text';
import { sum } from '../money/units';
import { buyersOf } from '../sale/corrections';
import { MOST_FOUND, SHORTEST, SHORTEST_REFERENCE, type FoundSale } from '../sale/sale-document';

/** The rows that sales are found by. */
export interface SaleRows {
  readonly sales: readonly Row<'sales'>[];
  readonly lines: readonly Pick<Row<'saleLines'>, 'sale' | 'line' | 'name' | 'detail'>[];
  readonly payments: readonly Pick<Row<'payments'>, 'slip' | 'reference' | 'card'>[];
  readonly returns: readonly Pick<Row<'returns'>, 'sale' | 'number' | 'total'>[];
  readonly voids: readonly Pick<Row<'voids'>, 'sale'>[];
  readonly corrections: readonly Row<'corrections'>[];
  readonly staff: readonly Pick<Row<'staff'>, 'id' | 'name'>[];
  readonly customers: readonly Row<'customers'>[];
}

interface Ready {
  readonly found: FoundSale;
  readonly slip: string;
  /** As people type it: without capitals. */
  readonly number: string;
  /** Minor units. */
  readonly paid: number;
  /** In truth. */
  readonly buyer: string;
  /** What its goods are called: places in `called`. */
  readonly names: readonly number[];
}

export interface SalesToFind extends Pick<SaleRows, 'staff' | 'customers'> {
  readonly joined: Joined;
  /** The latest first. */
  readonly sales: readonly Ready[];
  /** What goods are called, folded, each once; far fewer names than sales. */
  readonly called: readonly string[];
  /** Sales by the numbers of what came back of them, folded. */
  readonly returned: readonly (readonly [number: string, sale: string])[];
  /** Slips by references of their parts, folded, and by the last four of their cards. */
  readonly references: readonly (readonly [reference: string, slip: string])[];
  readonly last4: ReadonlyMap<string, readonly string[]>;
}

export function salesToFind(rows: SaleRows): SalesToFind {
  const last4 = new Map<string, string[]>();
  const linesOf = new Map<string, { line: number; name: string; called: number }[]>();
  const called: string[] = [];
  const placeOf = new Map<string, number>();
  for (const { sale, line, name, detail } of rows.lines) {
    const plain = `${name} ${detail}`;
    let place = placeOf.get(plain);
    if (place === undefined) {
      place = called.push(folded(plain)) - 1;
      placeOf.set(plain, place);
    }
    add(linesOf, sale, { line, name, called: place });
  }
  const references: (readonly [string, string])[] = [];
  for (const { slip, reference, card } of rows.payments) {
    if (reference !== '') references.push([folded(reference), slip]);
    if (card !== null) add(last4, card.last4, slip);
  }
  const back = new Map<string, number[]>();
  for (const { sale, total } of rows.returns) add(back, sale, total);
  const voided = new Set(rows.voids.map(({ sale }) => sale));
  const buyerOf = buyersOf(rows.corrections);
  const sales = rows.sales
    .map((sale) => {
      const lines = (linesOf.get(sale.id) ?? []).sort((a, b) => a.line - b.line);
      const isVoid = voided.has(sale.id);
      return {
        found: { sale, lines, isVoid, back: sum(back.get(sale.id) ?? []) },
        names: lines.map((line) => line.called),
        ...{ slip: sale.slip, number: folded(sale.number), paid: sale.total + sale.uplift },
        buyer: buyerOf(sale) ?? '',
      };
    })
    .sort((a, b) => (a.found.sale.id < b.found.sale.id ? 1 : -1));
  return {
    ...{ sales, called, references, last4, staff: rows.staff, customers: rows.customers },
    joined: new Joined(rows.customers),
    returned: rows.returns.map(({ number, sale }) => [folded(number), sale]),
  };
}

/**
 * Sales whose number, or that of a return of it, begins with what was typed, whose total is that amount, or on which
 * every word of it names something that was sold; and by who sold or bought, the day (ISO 8601), the reference of a
 * payment or the last four of its card. All of them when nothing is typed. Newest first, at most 50.
 * @param currency ISO 4217.
 */
export function fittingSales(all: SalesToFind, typed: string, currency: string): FoundSale[] {
  const wanted = folded(typed.trim());
  if (wanted === '') return all.sales.slice(0, MOST_FOUND).map(({ found }) => found);
  const words = wordsIn(typed);
  const amount = readAmount(wanted, currency);
  const isLong = wanted.length > 1;
  // What has no word in it names nothing.
  const isNamed = isLong && words.length > 0;
  const isCalledSo = isNamed
    ? all.called.map((text) => words.every((word) => text.includes(word)))
    : [];
  const returned = new Set<string>();
  if (isLong)
    for (const [number, sale] of all.returned) if (number.startsWith(wanted)) returned.add(sale);
  const { sellers, buyers, slips } = about(all, typed, wanted, words);
  const fits = ({ found: { sale }, slip, number, paid, buyer, names }: Ready): boolean =>
    names.some((name) => isCalledSo[name] === true) ||
    number.startsWith(wanted) ||
    (amount.ok && paid === amount.amount) ||
    sale.day === wanted ||
    (slips.size > 0 && slips.has(slip)) ||
    (sellers.size > 0 && sellers.has(sale.by ?? '')) ||
    (buyers.size > 0 && buyers.has(buyer)) ||
    (returned.size > 0 && returned.has(sale.id));
  const found: FoundSale[] = [];
  for (const each of all.sales) {
    if (found.length === MOST_FOUND) break;
    if (fits(each)) found.push(each.found);
  }
  return found;
}

/** Who and what a search may be about beside goods and figures; nobody and nothing for a single letter. */
function about(
  { staff, customers, joined, references, last4 }: SalesToFind,
  typed: string,
  wanted: string,
  words: readonly string[],
): Readonly<Record<'sellers' | 'buyers' | 'slips', ReadonlySet<string>>> {
  const [sellers, buyers, slips] = [new Set<string>(), new Set<string>(), new Set<string>()];
  if (wanted.length < SHORTEST || words.length === 0) return { sellers, buyers, slips };
  for (const { id, name } of staff) if (beginsWords(name, words)) sellers.add(id);
  for (const { id } of findCustomers(typed, customers, joined))
    for (const record of joined.records(id)) buyers.add(record);
  if (wanted.length >= SHORTEST_REFERENCE)
    for (const [reference, slip] of references) if (reference.startsWith(wanted)) slips.add(slip);
  for (const slip of last4.get(wanted) ?? []) slips.add(slip);
  return { sellers, buyers, slips };
}

function add<V>(to: Map<string, V[]>, key: string, value: V): void {
  const all = to.get(key);
  if (all === undefined) to.set(key, [value]);
  else all.push(value);
}
