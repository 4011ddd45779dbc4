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
  /** The sale or the invoice it is of, and its number; empty where it is of none that is known. */
  readonly sale: string;
  readonly invoice: string;
  readonly number: string;
  /** The sale or invoice whose debt it pays before older ones; null where nobody chose. */
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
  readonly invoice: string;
  readonly number: string;
  readonly at: string;
  readonly amount: number;
  readonly left: number;
  /** The local day on which it is to be paid; empty for what is older than is known. */
  readonly due: string;
  readonly isOverdue: boolean;
}

/** When what was asked for in writing is to be paid, by the sale or the invoice itself. ISO dates. */
export type DueDays = ReadonlyMap<string, string>;

/**
 * What of what a customer owes is still open: what was paid in for a sale or an invoice, and what of it came back, pays that; all else,
 * and what is more, pays the oldest first. What is owed from before the moves that are known is one item without a
 * number.
 * @param terms Days to pay where no invoice says when.
 */
export function openItems(
  moves: readonly HeldMove[],
  balance: number,
  terms: number,
  today: string,
  dayOf: (at: string) => string,
  dues: DueDays = new Map(),
): readonly OpenItem[] {
  const all = inOrder(moves);
  const before = balance - sum(all.map(({ amount }) => amount));
  const debts = [
    ...(before > 0 ? [{ sale: '', invoice: '', number: '', at: '', amount: before }] : []),
    ...oneEach(all.filter(({ amount }) => amount > 0)),
  ];
  const owed = new Set(debts.map(documentOf).filter((of) => of !== ''));
  const chosen = new Map<string, number>();
  let paid: number = Math.max(0, -before);
  for (const move of all) {
    if (move.amount >= 0) continue;
    const of = chosenBy(move);
    if (owed.has(of)) chosen.set(of, (chosen.get(of) ?? 0) - move.amount);
    else paid -= move.amount;
  }
  const own = debts.map((debt) => {
    const of = documentOf(debt);
    const off = Math.min(chosen.get(of) ?? 0, debt.amount);
    chosen.set(of, (chosen.get(of) ?? 0) - off);
    return off;
  });
  paid += sum([...chosen.values()]);
  return debts.flatMap((debt, n) => {
    const { sale, invoice, number, at, amount } = debt;
    const rest = Math.min(paid, amount - own[n]!);
    paid -= rest;
    const off = own[n]! + rest;
    if (off === amount) return [];
    const due = dues.get(documentOf(debt)) ?? (at === '' ? '' : daysAfter(dayOf(at), terms));
    const isOverdue = due !== '' && due < today;
    return [{ sale, invoice, number, at, amount, left: amount - off, due, isOverdue }];
  });
}

/** Of one document one debt: a sale may have been put on account in parts. */
function oneEach(debts: readonly HeldMove[]): readonly HeldMove[] {
  const found = new Map<string, HeldMove>();
  for (const debt of debts) {
    const of = documentOf(debt);
    const key = of === '' ? debt.id : of;
    const before = found.get(key);
    found.set(
      key,
      before === undefined ? debt : { ...before, amount: before.amount + debt.amount },
    );
  }
  return [...found.values()];
}

/** What somebody owes for. */
export const documentOf = ({ sale, invoice }: Pick<HeldMove, 'sale' | 'invoice'>): string =>
  sale === '' ? invoice : sale;

/** What comes off a sale or an invoice pays just that. */
const OF_ITSELF: readonly Kind[] = [
  'return.made',
  'sale.voided',
  'sale.corrected',
  'invoice.credited',
];

const chosenBy = (move: HeldMove): string =>
  move.pays ?? (OF_ITSELF.includes(move.kind) ? documentOf(move) : '');

export type SaleName = Pick<Row<'sales'>, 'id' | 'slip' | 'number'>;

/** Sales by their ids and by their slips': no two of any are the same. */
export const salesByDoc = (sales: readonly SaleName[]): ReadonlyMap<string, SaleName> =>
  new Map(sales.flatMap((sale) => [[sale.id, sale] as const, [sale.slip, sale] as const]));

/** As a statement has it, of a row, the sales that are known, and numbers of invoices by their ids. */
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
  invoices: ReadonlyMap<string, string> = new Map(),
): HeldMove {
  const said = { id, account, at, kind, amount, pays };
  if (docIs === 'invoice')
    return { ...said, sale: '', invoice: doc, number: invoices.get(doc) ?? '' };
  const sale = docIs === 'own' ? undefined : sales.get(doc);
  return { ...said, sale: sale?.id ?? '', invoice: '', number: sale?.number ?? '' };
}
