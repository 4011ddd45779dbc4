/** A sale as it stands after what was booked wrongly was put right, and what putting it right moves. */
import { BASE, type Row } from '../books/tables';
import type { Fix } from '../daybook/kinds/sale-corrected';
import { money, minus, type Posting } from '../journal/posting';
import { partPostings } from '../journal/payment';
import { figuresOfRows, salePostings } from '../journal/sale';
import { netOf, takeBack } from '../journal/take-back';

/** What a correction is about: the rows of one sale. */
export interface Correctable {
  readonly sale: Row<'sales'>;
  readonly lines: readonly Row<'saleLines'>[];
  readonly payments: readonly Row<'payments'>[];
}

type Correction = Pick<Row<'corrections'>, 'id' | 'sale' | 'fix' | 'stamp'>;

/** The rows as they are once all of these are applied, the first first; the same whatever order they come in. */
export function asCorrected<S extends Correctable>(of: S, corrections: readonly Correction[]): S {
  return inOrder(corrections)
    .filter(({ sale }) => sale === of.sale.id)
    .reduce<S>((before, { fix }) => ({ ...before, ...applied(before, fix) }), of);
}

const inOrder = (corrections: readonly Correction[]): readonly Correction[] =>
  corrections.toSorted((a, b) =>
    a.stamp < b.stamp ? -1 : a.stamp > b.stamp ? 1 : a.id < b.id ? -1 : 1,
  );

/** The rows with this put right. */
export function applied({ sale, lines, payments }: Correctable, fix: Fix): Correctable {
  switch (fix.is) {
    case 'way': {
      const { is: _is, part, ...paid } = fix;
      return {
        ...{ sale, lines },
        payments: payments.map((each) => (each.id === part ? { ...each, ...paid } : each)),
      };
    }
    case 'change':
      // What was handed over and owed stays: only the drawer has another amount.
      return { sale, lines, payments };
    case 'customer':
      return { sale: { ...sale, customer: fix.customer }, lines, payments };
    case 'seller':
      return {
        ...{ sale, payments },
        lines: lines.map((line) => ({ ...line, seller: fix.seller })),
      };
    case 'item': {
      const { is: _is, line: at, ...goods } = fix;
      return {
        ...{ sale, payments },
        lines: lines.map((line) => (line.line === at ? { ...line, ...goods } : line)),
      };
    }
  }
}

/** Parts of any sales as they were paid in truth. */
export function partsAsPaid<P extends Pick<Row<'payments'>, 'id' | 'way' | 'drawer'>>(
  payments: readonly P[],
  corrections: readonly Correction[],
): readonly P[] {
  const fixes = inOrder(corrections).flatMap(({ fix }) => (fix.is === 'way' ? [fix] : []));
  return payments.map((part) =>
    fixes.reduce<P>(
      (now, { is: _is, part: id, ...paid }) => (id === part.id ? { ...now, ...paid } : now),
      part,
    ),
  );
}

/** Whose sales are in truth somebody else's, or nobody's: by sale. */
export function customersPutRight(
  corrections: readonly Correction[],
): ReadonlyMap<string, string | null> {
  return new Map(
    inOrder(corrections).flatMap(({ sale, fix }) =>
      fix.is === 'customer' ? [[sale, fix.customer] as const] : [],
    ),
  );
}

/** What a correction moves: what the sale moved as it stood is taken off, and what it moves now is put on. */
export function movesOf(before: Correctable, fix: Fix): readonly Posting[] {
  if (fix.is === 'change') return changeMoves(before, fix);
  const taken = takeBack(before.sale.id, postingsOfAll(before)).postings;
  return [...netOf([...taken, ...postingsOfAll(applied(before, fix))]).values()];
}

/** Change that was counted wrongly is a difference of its drawer that has a name. */
function changeMoves(
  { payments }: Correctable,
  { part: id, change }: Extract<Fix, { is: 'change' }>,
): readonly Posting[] {
  const part = payments.find((each) => each.id === id);
  if (part === undefined || part.drawer === null) return [];
  const more = change - part.change;
  return [
    ...money(`drawer:${part.drawer}`, minus(more), { drawer: part.drawer }),
    ...money('drawer-difference', more, { drawer: part.drawer }),
  ];
}

function postingsOfAll({ sale, lines, payments }: Correctable): readonly Posting[] {
  // Rows from before there was a word for the place name the event.
  const place = sale.place === '' ? (sale.event ?? BASE) : sale.place;
  return [
    ...salePostings(figuresOfRows({ ...sale, place }, lines)),
    ...payments.flatMap((part) => partPostings(part)),
  ];
}
