/** A sale as it stands after what was booked wrongly was put right, and what putting it right moves. */
import { BASE, type Row } from '../books/tables';
import type { Fix } from '../daybook/kinds/sale-corrected';
import { money, minus, type Posting } from '../journal/posting';
import { partPostings } from '../journal/payment';
import { figuresOfRows, salePostings } from '../journal/sale';
import { netOf, takeBack } from '../journal/take-back';
import { EXCHANGE } from '../payment/methods';
import { takingsOfPart } from '../payment/part-sums';

/** What a correction is about: the rows of one sale. */
export interface Correctable {
  readonly sale: Row<'sales'>;
  readonly lines: readonly Row<'saleLines'>[];
  readonly payments: readonly Row<'payments'>[];
  /** Change that was handed out in truth, by part; a part that is not here handed out what it says. Minor units. */
  readonly handedOut?: Readonly<Record<string, number>> | undefined;
  /** It was said to be of another event than it was rung up at: what paid for it may lie elsewhere. */
  readonly isMoved?: boolean | undefined;
}

/** Change that was handed out for a part, as it is known now. Minor units. */
export const changeOf = (
  { id, change }: Pick<Row<'payments'>, 'id' | 'change'>,
  { handedOut = {} }: Pick<Correctable, 'handedOut'>,
): number => handedOut[id] ?? change;

export type Correction = Pick<Row<'corrections'>, 'id' | 'sale' | 'fix' | 'stamp'>;

/** The rows as they are once all of these are applied, the first first; the same whatever order they come in. */
export function asCorrected<S extends Correctable>(of: S, corrections: readonly Correction[]): S {
  const own = inOrder(corrections.filter(({ sale }) => sale === of.sale.id));
  return eachOnce(own).reduce<S>((before, { fix }) => ({ ...before, ...applied(before, fix) }), of);
}

/** What is said at several events, since it moves figures of several, is one thing: the first that says it. */
export const eachOnce = <C extends Pick<Correction, 'fix'>>(
  corrections: readonly C[],
): readonly C[] =>
  corrections.filter(
    ({ fix }, at) =>
      fix.is !== 'event' || corrections.findIndex((each) => isSameMove(each.fix, fix)) === at,
  );

/** Whether both say of the same sale that it was moved, the one here and the other there. */
export const isSameMove = (a: Fix, b: Fix): boolean =>
  a.is === 'event' && b.is === 'event' && a.move === b.move;

const inOrder = <C extends Correction>(corrections: readonly C[]): readonly C[] =>
  corrections.toSorted((a, b) =>
    a.stamp < b.stamp ? -1 : a.stamp > b.stamp ? 1 : a.id < b.id ? -1 : 1,
  );

/** Cash that is in no drawer there, and what goods paid that came back: those are written down where they came back. */
const stays = ({ drawer, method }: Row<'payments'>, cash: string | null): boolean =>
  method === EXCHANGE || (drawer !== null && cash === null);

/** The rows with this put right. */
export function applied(of: Correctable, fix: Fix): Correctable {
  const { sale, lines, payments } = of;
  switch (fix.is) {
    case 'way': {
      const { is: _is, part, ...paid } = fix;
      return {
        ...of,
        payments: payments.map((each) => (each.id === part ? { ...each, ...paid } : each)),
      };
    }
    case 'change':
      // What was handed over and owed stays: only the drawer has another amount.
      return { ...of, handedOut: { ...of.handedOut, [fix.part]: fix.change } };
    case 'customer':
      return { ...of, sale: { ...sale, customer: fix.customer } };
    case 'seller':
      return {
        ...of,
        lines: lines.map((line) => ({ ...line, seller: fix.seller })),
      };
    case 'item': {
      const { is: _is, line: at, ...goods } = fix;
      return {
        ...of,
        lines: lines.map((line) => (line.line === at ? { ...line, ...goods } : line)),
      };
    }
    case 'event': {
      const { to, cash } = fix;
      return {
        ...of,
        isMoved: true,
        sale: { ...sale, event: to, place: to },
        lines: lines.map((line) => ({ ...line, event: to })),
        payments: payments.map((part) =>
          stays(part, cash) ? part : { ...part, event: to, drawer: part.drawer && cash },
        ),
      };
    }
  }
}

type Part = Pick<Row<'payments'>, 'id' | 'way' | 'drawer' | 'change'>;

/** A part before and after a correction, and how much more change was handed out than it had said; minor units. */
export interface PartPutRight<P, C> {
  readonly correction: C;
  readonly before: P;
  readonly after: P;
  readonly moreChange: number;
}

/** What was put right of these parts, one after another. */
export function partsPutRight<P extends Part, C extends Correction>(
  parts: readonly P[],
  corrections: readonly C[],
): readonly PartPutRight<P, C>[] {
  const now = new Map(parts.map((part) => [part.id, part]));
  return inOrder(corrections).flatMap((correction) => {
    const { fix } = correction;
    const before = 'part' in fix ? now.get(fix.part) : undefined;
    if (before === undefined) return [];
    if (fix.is !== 'way' && fix.is !== 'change') return [];
    const { is: _is, part, ...paid } = fix;
    const after = { ...before, ...paid };
    now.set(part, after);
    return { correction, before, after, moreChange: after.change - before.change };
  });
}

/** Parts of any sales as they were paid in truth. */
export function partsAsPaid<P extends Part>(
  parts: readonly P[],
  corrections: readonly Correction[],
): readonly P[] {
  const last = new Map(partsPutRight(parts, corrections).map(({ after }) => [after.id, after]));
  // What was handed over and owed stays.
  return parts.map((part) => ({ ...part, ...last.get(part.id), change: part.change }));
}

/** Whose a sale is in truth; null for nobody's in particular. */
export function buyersOf(
  corrections: readonly Correction[],
): (sale: Pick<Row<'sales'>, 'id' | 'customer'>) => string | null {
  const putRight = new Map(
    inOrder(corrections).flatMap(({ sale, fix }) =>
      fix.is === 'customer' ? [[sale, fix.customer] as const] : [],
    ),
  );
  return ({ id, customer }) => putRight.get(id) ?? (putRight.has(id) ? null : customer);
}

/** At which events a correction is said: at that of the sale or of the part, or at all whose figures it moves. */
export function eventsOf(before: Correctable, fix: Fix): readonly (string | null)[] {
  if (fix.is !== 'event') {
    const part = 'part' in fix ? before.payments.find(({ id }) => id === fix.part) : undefined;
    // A part that was paid at another event has been booked with its sale, as long as that was not moved.
    return [before.isMoved === true && part !== undefined ? part.event : before.sale.event];
  }
  const all = [before, applied(before, fix)].flatMap(({ sale, payments }) => [
    sale.event,
    ...payments.map((part) => part.event),
  ]);
  return [...new Set(all)].filter((event) => movesOf(before, fix, event).length > 0);
}

/**
 * What a correction moves at an event: what the sale moved there as it stood is taken off, and what it moves now is
 * put on.
 */
export function movesOf(
  before: Correctable,
  fix: Fix,
  event: string | null = eventsOf(before, fix)[0] ?? null,
): readonly Posting[] {
  if (fix.is === 'change') return changeMoves(before, fix);
  const isByEvent = fix.is === 'event' || before.isMoved === true;
  const all = (of: Correctable): readonly Posting[] =>
    isByEvent ? postingsAt(event, of, fix.is === 'event') : postingsOfAll(of);
  const taken = takeBack(before.sale.id, all(before)).postings;
  return [...netOf([...taken, ...all(applied(before, fix))]).values()];
}

/** What of a sale and its parts stands at an event, and what of either is elsewhere. */
function postingsAt(
  event: string | null,
  of: Correctable,
  isWithDifferences: boolean,
): readonly Posting[] {
  const { sale, lines, payments } = of;
  const isHere = sale.event === event;
  const [here, elsewhere] = [
    payments.filter((part) => part.event === event),
    payments.filter((part) => part.event !== event),
  ];
  return [
    ...(isHere ? postingsOfAll({ sale, lines, payments: [] }) : []),
    ...here.flatMap((part) => partPostings(part)),
    ...(isWithDifferences ? here.flatMap((part) => differenceOf(part, of)) : []),
    ...(isHere
      ? elsewhere.flatMap((part) => betweenEvents(sale.slip, takingsOfPart(part)))
      : here.flatMap((part) => betweenEvents(sale.slip, minus(takingsOfPart(part))))),
  ];
}

/** What was taken elsewhere for a sale of here; below nothing, here for one of elsewhere. */
const betweenEvents = (slip: string, taken: number): readonly Posting[] => [
  ...money(`slip:${slip}`, minus(taken)),
  ...money('elsewhere', taken),
];

/** Change that was counted wrongly is a difference of its drawer that has a name. */
function changeMoves(
  of: Correctable,
  { part: id, change }: Extract<Fix, { is: 'change' }>,
): readonly Posting[] {
  const part = of.payments.find((each) => each.id === id);
  if (part === undefined || part.drawer === null) return [];
  return difference(part.drawer, change - changeOf(part, of));
}

/** What of a drawer's difference is the change of this part. */
const differenceOf = (part: Row<'payments'>, of: Correctable): readonly Posting[] =>
  part.drawer === null ? [] : difference(part.drawer, changeOf(part, of) - part.change);

const difference = (drawer: string, more: number): readonly Posting[] => [
  ...money(`drawer:${drawer}`, minus(more), { drawer }),
  ...money('drawer-difference', more, { drawer }),
];

function postingsOfAll({ sale, lines, payments }: Correctable): readonly Posting[] {
  // Rows from before there was a word for the place name the event.
  const place = sale.place === '' ? (sale.event ?? BASE) : sale.place;
  return [
    ...salePostings(figuresOfRows({ ...sale, place }, lines)),
    ...payments.flatMap((part) => partPostings(part)),
  ];
}
