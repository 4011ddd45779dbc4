/** An event's page: what it brought in, and what is left of each item. */
import type { Row } from '../books/tables';
import { sum } from '../money/units';
import { isPromotion } from '../points/promotion-methods';

/** Rows of one event, from wherever they are kept. */
export interface EventRows {
  readonly totals: Row<'eventTotals'> | undefined;
  readonly paidIn: Row<'eventPaidIn'> | undefined;
  readonly items: readonly Row<'eventItems'>[];
  readonly hours: readonly Row<'eventHours'>[];
  readonly taxes: readonly Row<'eventTaxes'>[];
  readonly ways: readonly Row<'eventWays'>[];
  readonly tips: readonly Row<'eventTips'>[];
  /** Stock at the event itself. */
  readonly stock: readonly Row<'stock'>[];
}

export interface ItemTakings {
  readonly item: string;
  /** Thousandths of the unit of measure. */
  readonly sold: number;
  readonly takings: number;
  readonly tax: number;
  /** Thousandths left at the event; null for what was never stocked there. */
  readonly left: number | null;
}

export interface EventTakings {
  readonly sales: number;
  readonly takings: number;
  readonly tax: number;
  readonly units: number;
  /** Paid in on accounts: it came by the ways to pay, and is no takings. */
  readonly paidIn: number;
  readonly items: readonly ItemTakings[];
  readonly hours: readonly Row<'eventHours'>[];
  readonly taxes: readonly Row<'eventTaxes'>[];
  readonly ways: readonly Row<'eventWays'>[];
  /** By who took them; apart from the takings. */
  readonly tips: readonly Row<'eventTips'>[];
}

/** Puts an event's rows together; lists are in order of their keys, so two sources can be compared. */
export function takingsOf(rows: EventRows): EventTakings {
  const left = new Map(rows.stock.map(({ item, quantity }) => [item, quantity]));
  const sold = new Map(rows.items.map((row) => [row.item, row]));
  const items = [...new Set([...left.keys(), ...sold.keys()])].sort();
  return {
    sales: rows.totals?.sales ?? 0,
    takings: rows.totals?.takings ?? 0,
    tax: rows.totals?.tax ?? 0,
    units: rows.totals?.units ?? 0,
    paidIn: rows.paidIn?.amount ?? 0,
    items: items.map((item) => ({
      item,
      sold: sold.get(item)?.quantity ?? 0,
      takings: sold.get(item)?.takings ?? 0,
      tax: sold.get(item)?.tax ?? 0,
      left: left.get(item) ?? null,
    })),
    hours: inOrder(rows.hours, ({ day, hour }) => `${day} ${String(hour).padStart(2, '0')}`),
    taxes: inOrder(rows.taxes, ({ tax, rate }) => `${tax} ${rate}`),
    ways: inOrder(rows.ways, ({ way }) => way),
    tips: inOrder(rows.tips, ({ seller }) => seller),
  };
}

/** What points and rewards paid at an event: it came by ways to pay, and is no takings. Minor units. */
export const promotedIn = (
  ways: readonly Pick<Row<'eventWays'>, 'way' | 'takings'>[],
  known: readonly Pick<Row<'ways'>, 'id' | 'method'>[],
): number => {
  const given = new Set(known.flatMap(({ id, method }) => (isPromotion(method) ? id : [])));
  return sum(ways.flatMap(({ way, takings }) => (given.has(way) ? takings : [])));
};

/** One figure that the two sides do not agree on. */
export interface TakingsDifference {
  /** What differs, as a path: `takings`, or `items.<id>.left`. */
  readonly where: string;
  readonly device: number | null;
  readonly server: number | null;
}

/** Every figure in which a device's rows and the server's differ; none when they agree. */
export function differencesBetween(
  device: EventTakings,
  server: EventTakings,
): TakingsDifference[] {
  const found: TakingsDifference[] = [];
  const compare = (where: string, a: number | null, b: number | null): void => {
    if (a !== b) found.push({ where, device: a, server: b });
  };
  for (const figure of ['sales', 'takings', 'tax', 'units', 'paidIn'] as const) {
    compare(figure, device[figure], server[figure]);
  }
  const ours = new Map(device.items.map((row) => [row.item, row]));
  const theirs = new Map(server.items.map((row) => [row.item, row]));
  for (const item of new Set([...ours.keys(), ...theirs.keys()])) {
    for (const figure of ['sold', 'takings', 'left'] as const) {
      const [a, b] = [ours.get(item)?.[figure] ?? null, theirs.get(item)?.[figure] ?? null];
      compare(`items.${item}.${figure}`, a, b);
    }
  }
  for (const way of new Set([...device.ways, ...server.ways].map((row) => row.way))) {
    for (const figure of ['takings', 'surcharge', 'tips'] as const) {
      const of = (side: EventTakings): number =>
        side.ways.find((row) => row.way === way)?.[figure] ?? 0;
      compare(`ways.${way}.${figure}`, of(device), of(server));
    }
  }
  return found;
}

const inOrder = <T>(rows: readonly T[], key: (row: T) => string): T[] =>
  [...rows].sort((a, b) => (key(a) < key(b) ? -1 : 1));
