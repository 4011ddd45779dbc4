/** Cash in between: paid in and out, to the safe, more float, notes changed, from drawer to drawer, into a bag. */
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft, type BodyOf } from '../daybook/kinds';
import { readAmount } from '../money/amount-text';
import { bagAt, cashAct, drawerAt, NEW_BAG, type CashAct, type CashPlace } from './cash-places';

export type CashRefusal = { readonly field: string } & (
  | { readonly code: 'cash/amount-wrong'; readonly typed: string }
  | { readonly code: 'cash/no-purpose' }
  | { readonly code: 'cash/no-bag' }
  | { readonly code: 'cash/bag-taken'; readonly number: string }
  | { readonly code: 'cash/bag-gone' }
  | { readonly code: 'cash/same-place' }
  | { readonly code: 'cash/counted-already'; readonly name: string }
);
export type CashOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: CashRefusal };

export interface TypedCash {
  readonly from: CashPlace;
  readonly to: CashPlace;
  readonly amount: string;
  readonly what: string;
  readonly bag: string;
}

export interface MoveCash {
  readonly newId: () => string;
  readonly event: string | null;
  readonly currency: string;
  readonly typed: TypedCash;
  /** The bill, as a data address; null for none. */
  readonly photo: string | null;
  /** Drawers that have been counted: nothing goes in or out of them. */
  readonly counted: readonly Pick<Row<'drawers'>, 'id' | 'name'>[];
  /** Bags whose money has not reached the bank. */
  readonly bags: readonly Pick<Bag, 'id' | 'number'>[];
}

/** What somebody else would want to know of it later. */
const NEEDS_PURPOSE: ReadonlySet<CashAct> = new Set(['paid-out', 'paid-in', 'to-owner']);

export function moveCash(command: MoveCash): CashOutcome {
  const { newId, event, currency, typed, photo, counted, bags } = command;
  const { from, to } = typed;
  if (from === to && drawerAt(from) === null)
    return refuse({ code: 'cash/same-place', field: 'to' });
  const read = readAmount(typed.amount, currency);
  if (!read.ok || read.amount === 0)
    return refuse({ code: 'cash/amount-wrong', field: 'amount', typed: typed.amount });
  const what = typed.what.trim().slice(0, 120);
  if (what === '' && NEEDS_PURPOSE.has(cashAct(typed)))
    return refuse({ code: 'cash/no-purpose', field: 'what' });
  const number = typed.bag.trim().slice(0, 40);
  if (to === NEW_BAG) {
    if (number === '') return refuse({ code: 'cash/no-bag', field: 'bag' });
    if (bags.some((bag) => bag.number.toLowerCase() === number.toLowerCase()))
      return refuse({ code: 'cash/bag-taken', field: 'bag', number });
  }
  const opens = bagAt(from);
  if (opens !== null && !bags.some(({ id }) => id === opens))
    return refuse({ code: 'cash/bag-gone', field: 'from' });
  const closed = counted.find(({ id }) => [from, to].map(drawerAt).includes(id));
  if (closed !== undefined)
    return refuse({ code: 'cash/counted-already', field: 'from', name: closed.name });
  const body: BodyOf<'cash.moved'> = {
    ...{ from, to, amount: read.amount, what },
    ...(to === NEW_BAG ? { bag: number } : {}),
    ...(photo === null ? {} : { photo }),
  };
  return { ok: true, drafts: [draft('cash.moved', newId(), event, body)] };
}

const refuse = (refusal: CashRefusal): CashOutcome => ({ ok: false, refusal });

/** Cash on its way to the bank. */
export interface Bag {
  readonly id: string;
  readonly number: string;
  /** Minor units. */
  readonly amount: number;
  readonly event: string | null;
  readonly at: string;
  readonly by: string | null;
}

type Reads = readonly Pick<Row<'drawerReads'>, 'id' | 'bag' | 'event' | 'at' | 'by'>[];
type Moves = readonly Pick<
  Row<'cashMoves'>,
  'id' | 'from' | 'to' | 'amount' | 'bag' | 'event' | 'at' | 'by'
>[];

/** Bags that were filled and not opened again, the oldest first. */
export function bagsOf(reads: Reads, moves: Moves): readonly Bag[] {
  const opened = new Set(moves.flatMap(({ from }) => bagAt(from) ?? []));
  return [
    ...reads.flatMap(({ bag, ...read }) => (bag === null ? [] : { ...read, ...bag })),
    ...moves.flatMap(({ to, bag: number, ...move }) => (to === NEW_BAG ? { ...move, number } : [])),
  ]
    .filter(({ id }) => !opened.has(id))
    .map(({ id, number, amount, event, at, by }) => ({ id, number, amount, event, at, by }))
    .sort((a, b) => (a.at < b.at ? -1 : 1));
}
