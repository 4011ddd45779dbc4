/** All that is kept of one customer, for handing it to them (GDPR, article 15 and 20). */
import type { Row } from '../books/tables';
import type { CardOnFile } from '../daybook/kinds/customer-card';
import { inOrder, type HeldMove } from '../held/statement';
import { isPointsOf } from '../points/promotion-methods';
import { totalOf } from '../order/agreed';
import { signaturePath } from '../payment/signature';
import { buyersOf, type Correction } from '../sale/corrections';
import { cardHolder, cardOf } from './card-on-file';

export interface CustomerFile {
  /** False where what devices let go of could not be asked for: what is long past may be missing. */
  readonly isWhole: boolean;
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

/** What belongs to a customer that devices let go of once it is past. */
export interface CustomerDocuments {
  readonly sales: readonly Pick<Row<'sales'>, 'id' | 'number' | 'at' | 'total'>[];
  readonly payers: readonly Pick<Row<'payers'>, 'id' | 'name' | 'strokes'>[];
  readonly moves: readonly HeldMove[];
}

/** Of these sales, those of a customer in truth: as they were rung up, or as was said afterwards. */
export function salesOf<S extends Pick<Row<'sales'>, 'id' | 'customer'>>(
  records: readonly string[],
  sales: readonly S[],
  corrections: readonly Correction[],
): readonly S[] {
  const buyerOf = buyersOf(corrections);
  return sales.filter((sale) => records.includes(buyerOf(sale) ?? ''));
}

/** What a file is made of: all of it by whoever has it whole. */
export interface CustomerBooks extends CustomerDocuments {
  /** Their records, the one they go by first. */
  readonly rows: readonly Row<'customers'>[];
  readonly consents: readonly Row<'consents'>[];
  readonly orders: readonly Row<'orders'>[];
  readonly invoices: readonly Row<'invoices'>[];
  /** What invoices are called, by their ids. */
  readonly numbers: ReadonlyMap<string, string>;
  readonly charges: readonly Row<'charges'>[];
  readonly isWhole: boolean;
}

/** Consents, sales and what moved by time, oldest first. */
export function customerFile({
  rows,
  consents,
  sales,
  payers,
  moves,
  orders,
  invoices,
  numbers,
  charges,
  isWhole,
}: CustomerBooks): CustomerFile {
  const [customer = {}, ...records] = rows.map((row) =>
    Object.fromEntries(TOLD.map((field) => [field, row[field]])),
  );
  return {
    ...{ isWhole, customer, records },
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
