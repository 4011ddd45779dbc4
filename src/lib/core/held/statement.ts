/** What moved on an account that somebody holds, as a statement, and what of what they owe is still to be paid. Minor units. */
import type { Row } from '../books/tables';
import type { Kind } from '../daybook/kinds';
import { daysAfter } from '../event/event-days';
import { sum } from '../money/units';

/** Something that moved on an account, with what people call the document it is of. */
export interface HeldMove {
  readonly id: string;
  readonly account: string;
  /** ISO 8601. */
  readonly at: string;
  readonly kind: Kind;
  readonly amount: number;
  /** The sale it is of, and its number; empty where it is of none that is known. */
  readonly sale: string;
  readonly number: string;
  /** The sale whose debt it pays before older ones; null where nobody chose. */
  readonly pays: string | null;
}

export interface StatementLine extends HeldMove {
  /** What stands on the account after it. */
  readonly balance: number;
}

export interface Statement {
  readonly opening: number;
  readonly lines: readonly StatementLine[];
  readonly closing: number;
}

export const inOrder = (moves: readonly HeldMove[]): readonly HeldMove[] =>
  moves.toSorted((a, b) =>
    a.at < b.at ? -1 : a.at > b.at ? 1 : a.id < b.id ? -1 : a.id > b.id ? 1 : 0,
  );

/**
 * @param balance What stands on the account now: what is not among the moves came before them.
 * @param from The first local day, and `to` the last one; empty for as long as there is any.
 * @param dayOf The local day of a moment.
 */
export function statementOf(
  moves: readonly HeldMove[],
  balance: number,
  from: string,
  to: string,
  dayOf: (at: string) => string,
): Statement {
  const all = inOrder(moves);
  const before = balance - sum(all.map(({ amount }) => amount));
  const isEarlier = ({ at }: HeldMove): boolean => from !== '' && dayOf(at) < from;
  const isLater = ({ at }: HeldMove): boolean => to !== '' && dayOf(at) > to;
  const opening = before + sum(all.filter(isEarlier).map(({ amount }) => amount));
  let stands: number = opening;
  const lines = all
    .filter((move) => !isEarlier(move) && !isLater(move))
    .map((move) => ({ ...move, balance: (stands += move.amount) }));
  return { opening, lines, closing: stands };
}

/** A debt that is not paid yet, or not all of it. */
export interface OpenItem {
  readonly sale: string;
  readonly number: string;
  readonly at: string;
  readonly amount: number;
  readonly left: number;
  /** The local day on which it is to be paid; empty for what is older than is known. */
  readonly due: string;
  readonly isOverdue: boolean;
}

/**
 * What of what a customer owes is still open: what was paid in for a sale, and what of it came back, pays that; all else,
 * and what is more, pays the oldest first. What is owed from before the moves that are known is one item without a
 * number.
 * @param terms Days to pay.
 */
export function openItems(
  moves: readonly HeldMove[],
  balance: number,
  terms: number,
  today: string,
  dayOf: (at: string) => string,
): readonly OpenItem[] {
  const all = inOrder(moves);
  const before = balance - sum(all.map(({ amount }) => amount));
  const debts = [
    ...(before > 0 ? [{ sale: '', number: '', at: '', amount: before }] : []),
    ...all.filter(({ amount }) => amount > 0),
  ];
  const owed = new Set(debts.map(({ sale }) => sale).filter((sale) => sale !== ''));
  const chosen = new Map<string, number>();
  let paid: number = Math.max(0, -before);
  for (const move of all) {
    if (move.amount >= 0) continue;
    const sale = chosenBy(move);
    if (owed.has(sale)) chosen.set(sale, (chosen.get(sale) ?? 0) - move.amount);
    else paid -= move.amount;
  }
  const own = debts.map(({ sale, amount }) => {
    const off = Math.min(chosen.get(sale) ?? 0, amount);
    chosen.set(sale, (chosen.get(sale) ?? 0) - off);
    return off;
  });
  paid += sum([...chosen.values()]);
  return debts.flatMap(({ sale, number, at, amount }, n) => {
    const rest = Math.min(paid, amount - own[n]!);
    paid -= rest;
    const off = own[n]! + rest;
    if (off === amount) return [];
    const due = at === '' ? '' : daysAfter(dayOf(at), terms);
    return [
      { sale, number, at, amount, left: amount - off, due, isOverdue: due !== '' && due < today },
    ];
  });
}

/** What comes off a sale pays that sale. */
const OF_ITSELF: readonly Kind[] = ['return.made', 'sale.voided', 'sale.corrected'];

const chosenBy = ({ pays, kind, sale }: HeldMove): string =>
  pays ?? (OF_ITSELF.includes(kind) ? sale : '');

export type SaleName = Pick<Row<'sales'>, 'id' | 'slip' | 'number'>;

/** Sales by their ids and by their slips': no two of any are the same. */
export const salesByDoc = (sales: readonly SaleName[]): ReadonlyMap<string, SaleName> =>
  new Map(sales.flatMap((sale) => [[sale.id, sale] as const, [sale.slip, sale] as const]));

/** As a statement has it, of a row and the sales that are known. */
export function heldMove(
  {
    id,
    account,
    at,
    kind,
    amount,
    doc,
    docIs,
    pays,
  }: Omit<Row<'heldMoves'>, 'event' | 'device' | 'by'>,
  sales: ReadonlyMap<string, SaleName>,
): HeldMove {
  const sale = docIs === 'own' ? undefined : sales.get(doc);
  const named = { sale: sale?.id ?? '', number: sale?.number ?? '' };
  return { id, account, at, kind, amount, pays, ...named };
}
