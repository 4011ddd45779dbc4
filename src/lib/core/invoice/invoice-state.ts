/** How invoices stand: what of each is still to be paid, since when it is overdue, and what is to be credited. */
import type { Row } from '../books/tables';
import { NOBODY_JOINED, type Joined } from '../customer/joined';
import { documentOf, openItems, type DueDays, type HeldMove } from '../held/statement';
import { sum } from '../money/units';
import { leftToCredit } from './make-invoice';

type Invoice = Row<'invoices'>;

/** A credit note is none of these. */
export type InvoiceStands = 'to pay' | 'in part' | 'overdue' | 'paid' | 'credited';

export interface InvoiceNow {
  readonly invoice: Invoice;
  /** Empty while the server has not given it. */
  readonly number: string;
  readonly stands: InvoiceStands | 'credit note';
  /** What it asked for: less what was paid before; what of that is still owed. Minor units. */
  readonly asked: number;
  readonly left: number;
  readonly credits: readonly Invoice[];
}

/** What somebody owes for by it: the sale that it is of, or itself. */
export const owedBy = ({ id, sourceIs, source }: Pick<Invoice, 'id' | 'sourceIs' | 'source'>) =>
  sourceIs === 'sale' && source !== null ? source : id;

/** When each is due, by what is owed for by it. */
export const dueDays = (invoices: readonly Invoice[]): DueDays =>
  new Map(
    invoices.flatMap((each) =>
      each.sort === 'invoice' ? [[owedBy(each), each.due] as const] : [],
    ),
  );

export interface InvoicesOf {
  readonly invoices: readonly Invoice[];
  /** By invoice. */
  readonly numbers: ReadonlyMap<string, string>;
  /** What moved on the accounts of their customers, and what stands on each, by the account that a person goes by. */
  readonly moves: readonly HeldMove[];
  readonly balances: ReadonlyMap<string, number>;
  /** Records of their customers that are of one person: what is paid on one pays for the others. */
  readonly joined?: Joined;
  /** The local day, ISO 8601. */
  readonly today: string;
  readonly dayOf: (at: string) => string;
}

/** All of them, the latest first. */
export function invoicesNow({
  invoices,
  numbers,
  moves,
  balances,
  joined = NOBODY_JOINED,
  today,
  dayOf,
}: InvoicesOf): readonly InvoiceNow[] {
  const dues = dueDays(invoices);
  const left = new Map<string, number>();
  for (const [account, own] of groupedBy([...moves, ...notKnown(moves, invoices)], (move) =>
    joined.account(move.account),
  ))
    for (const item of openItems(own, balances.get(account) ?? 0, 0, today, dayOf, dues))
      left.set(documentOf(item), (left.get(documentOf(item)) ?? 0) + item.left);
  const creditsOf = groupedBy(invoices, ({ credits }) => credits ?? '');
  return invoices
    .map((invoice) =>
      invoiceNow(
        invoice,
        numbers.get(invoice.id) ?? '',
        left.get(owedBy(invoice)) ?? 0,
        creditsOf.get(invoice.id) ?? [],
        today,
      ),
    )
    .sort((a, b) =>
      a.invoice.issued === b.invoice.issued
        ? a.invoice.id < b.invoice.id
          ? 1
          : -1
        : a.invoice.issued < b.invoice.issued
          ? 1
          : -1,
    );
}

/**
 * What invoices themselves say that they moved, where the store has let go of it: else what is owed from before what it
 * knows would be nobody's, and the invoice would look paid.
 */
function notKnown(moves: readonly HeldMove[], invoices: readonly Invoice[]): readonly HeldMove[] {
  const known = new Set(
    moves.flatMap((move) =>
      move.kind === 'invoice.credited' ? [] : move.amount > 0 ? documentOf(move) : [],
    ),
  );
  const ids = new Set(moves.map(({ id }) => id.slice(0, id.indexOf(':'))));
  return invoices.flatMap((invoice): HeldMove[] => {
    const { id, at, sort, customer, credits, sourceIs, source, total, paid } = invoice;
    const said = { id: `${id}:`, account: `customer:${customer}`, at, number: '', pays: null };
    if (sort === 'credit')
      return sourceIs !== 'own' || credits === null || ids.has(id)
        ? []
        : [{ ...said, kind: 'invoice.credited', sale: '', invoice: credits, amount: -total }];
    if (known.has(owedBy(invoice)) || total === paid) return [];
    const of =
      sourceIs === 'sale' && source !== null
        ? { kind: 'payment.taken' as const, sale: source, invoice: '' }
        : { kind: 'invoice.made' as const, sale: '', invoice: id };
    return [{ ...said, ...of, amount: total - paid }];
  });
}

function groupedBy<T>(all: readonly T[], by: (each: T) => string): ReadonlyMap<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const each of all) {
    const own = groups.get(by(each));
    if (own === undefined) groups.set(by(each), [each]);
    else own.push(each);
  }
  return groups;
}

function invoiceNow(
  invoice: Invoice,
  number: string,
  owed: number,
  credits: readonly Invoice[],
  today: string,
): InvoiceNow {
  const asked = invoice.total - invoice.paid;
  const said = { invoice, number, asked, credits };
  if (invoice.sort === 'credit') return { ...said, stands: 'credit note', left: 0 };
  // What was paid on that debt before it was put in writing is not asked for again.
  const left = Math.min(owed, asked);
  const stands =
    leftToCredit(invoice, credits) <= 0
      ? 'credited'
      : left <= 0
        ? 'paid'
        : invoice.due < today
          ? 'overdue'
          : left < asked - sum(credits.map(({ total }) => total))
            ? 'in part'
            : 'to pay';
  return { ...said, stands, left: Math.max(0, left) };
}

/** Days since it was due, in steps of a month. */
export const AGES = ['not due', '1–30', '31–60', '61–90', 'over 90'] as const;
export type Age = (typeof AGES)[number];

const DAY = 86_400_000;
/** Below nothing before it is due. ISO dates. */
export const daysOverdue = (due: string, today: string): number =>
  Math.round((Date.parse(today) - Date.parse(due)) / DAY);

export function ageOf(due: string, today: string): Age {
  const days = daysOverdue(due, today);
  return days <= 0
    ? 'not due'
    : days <= 30
      ? '1–30'
      : days <= 60
        ? '31–60'
        : days <= 90
          ? '61–90'
          : 'over 90';
}

/** What is still to be paid by how long it is overdue. Minor units. */
export const byAge = (
  all: readonly InvoiceNow[],
  today: string,
): readonly { readonly age: Age; readonly amount: number }[] =>
  AGES.map((age) => ({
    age,
    amount: sum(
      all.flatMap(({ invoice, left }) => (ageOf(invoice.due, today) === age ? left : [])),
    ),
  }));

/** What came back of an invoiced sale, or its void, for which no credit note was made. */
export function toCredit(
  invoice: Invoice,
  credits: readonly Invoice[],
  returns: readonly Pick<Row<'returns'>, 'id' | 'number' | 'at' | 'total'>[],
  isVoid: boolean,
): readonly { readonly is: 'return' | 'void'; readonly id: string; readonly number: string }[] {
  if (invoice.sort !== 'invoice' || invoice.sourceIs !== 'sale') return [];
  const known = new Set(credits.map(({ source }) => source));
  return [
    ...returns
      .filter(({ id, at }) => at > invoice.at && !known.has(id))
      .map(({ id, number }) => ({ is: 'return' as const, id, number })),
    ...(isVoid && !known.has(invoice.source)
      ? [{ is: 'void' as const, id: invoice.source ?? '', number: invoice.sourceNumber }]
      : []),
  ];
}
