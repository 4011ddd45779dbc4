/** All that is kept of one customer, for handing it to them (GDPR, article 15 and 20). */
import type { Row } from '../books/tables';

export interface CustomerFile {
  readonly customer: Readonly<Record<string, string | number | boolean | null>>;
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
}

/** Consents and sales by time, oldest first. */
export function customerFile(
  { setStamp: _a, whoStamp: _b, consentStamp: _c, isErased: _d, ...customer }: Row<'customers'>,
  consents: readonly Row<'consents'>[],
  sales: readonly Pick<Row<'sales'>, 'number' | 'at' | 'total'>[],
): CustomerFile {
  return {
    customer,
    consents: byTime(consents).map(({ at, isGiven, way }) => ({ at, isGiven, way })),
    sales: byTime(sales).map(({ number, at, total }) => ({ number, at, total })),
  };
}

const byTime = <T extends { readonly at: string }>(rows: readonly T[]): readonly T[] =>
  rows
    .map((row, place) => ({ row, place }))
    .sort((a, b) => (a.row.at === b.row.at ? a.place - b.place : a.row.at < b.row.at ? -1 : 1))
    .map(({ row }) => row);
