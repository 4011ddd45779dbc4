/** All that is kept of one customer, for handing it to them (GDPR, article 15 and 20). */
import type { Row } from '../books/tables';
import type { CardOnFile } from '../daybook/kinds/customer-card';
import { inOrder, type HeldMove } from '../held/statement';
import { isPointsOf } from '../points/promotion-methods';
import { totalOf } from '../order/agreed';
import { signaturePath } from '../payment/signature';
import { cardHolder, cardOf } from './card-on-file';

export interface CustomerFile {
  /** The card that is on file, as far as it is known here; null where there is none. */
  readonly card: CardOnFile | null;
  readonly customer: Readonly<Record<string, string | number | boolean | null>>;
  /** What is known of them on records that were joined to it. */
  readonly records: readonly CustomerFile['customer'][];
  /** What they signed, and cheques of theirs. */
  readonly payments: readonly {
    readonly id: string;
    readonly name: string;
    /** The `d` of an SVG path; empty where nobody signed. */
    readonly signature: string;
  }[];
  readonly consents: readonly {
    readonly at: string;
    readonly isGiven: boolean;
    readonly way: string;
  }[];
  readonly sales: readonly {
    readonly number: string;
    readonly at: string;
    /** Minor units. */
    readonly total: number;
  }[];
  /** What was quoted to them, kept for them, or is theirs to collect. */
  readonly orders: readonly {
    readonly number: string;
    readonly at: string;
    readonly sort: string;
    /** Minor units. */
    readonly total: number;
    readonly note: string;
  }[];
  /** What moved on what they owe and on their credit; what they owe is above nothing. Minor units. */
  readonly account: readonly {
    readonly at: string;
    readonly on: 'owed' | 'credit';
    readonly kind: string;
    /** The sale's number; empty where it is of none. */
    readonly number: string;
    readonly amount: number;
  }[];
  /** Invoices and credit notes to them, with what they were called and where they lived then. Minor units. */
  readonly invoices: readonly (Pick<
    Row<'invoices'>,
    'sort' | 'issued' | 'due' | 'total' | 'paid' | 'note' | 'buyer'
  > & { readonly number: string })[];
  /** What they are charged again and again. Minor units for one, quantities in thousandths. */
  readonly charges: readonly Pick<
    Row<'charges'>,
    'lines' | 'unit' | 'every' | 'from' | 'until' | 'isActive' | 'consent' | 'note' | 'reference'
  >[];
  /** What moved their points; given ones are above nothing. */
  readonly points: readonly {
    readonly at: string;
    readonly kind: string;
    readonly number: string;
    readonly points: number;
  }[];
}

/** What is told of a customer as it stands; the card is told apart. */
const TOLD = [
  'id',
  'name',
  'email',
  'phone',
  'company',
  'address',
  'taxNumber',
  'note',
  'code',
  'discount',
  'terms',
  'creditLimit',
  'isActive',
  'mayKeep',
] as const satisfies readonly (keyof Row<'customers'>)[];

/** Consents, sales and what moved by time, oldest first. @param rows Their records, the one they go by first. */
export function customerFile(
  rows: readonly Row<'customers'>[],
  consents: readonly Row<'consents'>[],
  sales: readonly Pick<Row<'sales'>, 'number' | 'at' | 'total'>[],
  payers: readonly Row<'payers'>[],
  moves: readonly HeldMove[],
  orders: readonly Row<'orders'>[],
  invoices: readonly Row<'invoices'>[],
  numbers: ReadonlyMap<string, string>,
  charges: readonly Row<'charges'>[],
): CustomerFile {
  const [customer = {}, ...records] = rows.map((row) =>
    Object.fromEntries(TOLD.map((field) => [field, row[field]])),
  );
  return {
    ...{ customer, records },
    card: cardOf(cardHolder(rows)),
    payments: payers.map(({ id, name, strokes }) => ({
      id,
      name,
      signature: signaturePath(strokes),
    })),
    consents: byTime(consents).map(({ at, isGiven, way }) => ({ at, isGiven, way })),
    sales: byTime(sales).map(({ number, at, total }) => ({ number, at, total })),
    orders: byTime(orders).map(({ number, at, sort, lines, note }) => ({
      ...{ number, at, sort, total: totalOf(lines), note },
    })),
    invoices: byTime(invoices).map(({ id, sort, issued, due, total, paid, note, buyer }) => ({
      ...{ sort, number: numbers.get(id) ?? '', issued, due, total, paid, note, buyer },
    })),
    charges: byTime(charges).map(
      ({ lines, unit, every, from, until, isActive, consent, note, reference }) => ({
        ...{ lines, unit, every, from, until, isActive, consent, note, reference },
      }),
    ),
    points: inOrder(moves.filter(isOfPoints)).map(({ at, kind, number, amount }) => ({
      ...{ at, kind, number, points: 0 - amount },
    })),
    account: inOrder(moves.filter((move) => !isOfPoints(move))).map(
      ({ at, account, kind, number, amount }) => ({
        ...{ at, kind, number, amount },
        on: account.startsWith('credit:') ? ('credit' as const) : ('owed' as const),
      }),
    ),
  };
}

const isOfPoints = ({ account }: HeldMove): boolean => isPointsOf(account);

const byTime = <T extends { readonly at: string }>(rows: readonly T[]): readonly T[] =>
  rows
    .map((row, place) => ({ row, place }))
    .sort((a, b) => (a.row.at === b.row.at ? a.place - b.place : a.row.at < b.row.at ? -1 : 1))
    .map(({ row }) => row);
