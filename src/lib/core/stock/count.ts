/** Counting stock while selling goes on: what should have been there when it was counted, and what that says. */
import type { Row } from '../books/tables';
import { draft } from '../daybook/kinds';
import { costOf } from '../sale/cost';
import { lineAmount } from '../slip/line-amount';
import type { Draft } from '../daybook/chain';
import { nextNumber } from './list-state';

type Count = Row<'counts'>;
type Item = Row<'items'>;
type Note = Pick<Row<'countNotes'>, 'item' | 'quantity' | 'stamp'>;
type Move = Pick<Row<'moves'>, 'place' | 'item' | 'quantity' | 'stamp'>;
type Accepted = Pick<
  Row<'countsAccepted'>,
  'id' | 'item' | 'counted' | 'expected' | 'stamp' | 'place' | 'count'
>;

export type CountRefusal =
  | { readonly code: 'count/no-place' }
  | { readonly code: 'count/ended' }
  | { readonly code: 'count/nothing' }
  | { readonly code: 'count/no-reason' };
export type CountOutcome =
  | { readonly ok: true; readonly id: string; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: CountRefusal };
const refuse = (refusal: CountRefusal): CountOutcome => ({ ok: false, refusal });

export const countNumber = ({ deviceNumber, number }: Pick<Count, 'deviceNumber' | 'number'>) =>
  `C${String(deviceNumber)}-${String(number)}`;

export interface BeginCount {
  readonly newId: () => string;
  readonly event: string | null;
  readonly name: string;
  readonly place: string;
  readonly category: string;
  readonly isBlind: boolean;
  readonly deviceNumber: number;
  readonly counts: readonly Count[];
}

export function beginCount(command: BeginCount): CountOutcome {
  const { newId, event, place, category, isBlind, deviceNumber, counts } = command;
  if (place === '') return refuse({ code: 'count/no-place' });
  const id = newId();
  const body = {
    count: id,
    deviceNumber,
    number: nextNumber(deviceNumber, counts),
    name: command.name.trim().slice(0, 80) || 'Count',
    place,
    category: category.slice(0, 80),
    isBlind,
    note: '',
  };
  return { ok: true, id, drafts: [draft('count.set', newId(), event, body)] };
}

/** What somebody counted; it adds to what was counted before. Below nothing takes a miscount back. */
export function noteCounted(
  newId: () => string,
  count: Pick<Count, 'id' | 'event' | 'how'>,
  goods: readonly { readonly item: string; readonly quantity: number }[],
): CountOutcome {
  if (isEnded(count)) return refuse({ code: 'count/ended' });
  if (goods.length === 0) return refuse({ code: 'count/nothing' });
  const body = { count: count.id, goods: [...goods] };
  return { ok: true, id: count.id, drafts: [draft('count.noted', newId(), count.event, body)] };
}

export const isEnded = ({ how }: Pick<Count, 'how'>): boolean => how === 'done' || how === 'off';

/** How much was on hand at a stamp: what there is now, less all that moved after it. Thousandths. */
export function onHandAt(
  now: number,
  moves: Iterable<Move>,
  place: string,
  item: string,
  stamp: string,
): number {
  let then = now;
  for (const each of moves)
    if (each.place === place && each.item === item && each.stamp > stamp) then -= each.quantity;
  return then;
}

/** One item that was counted. Quantities in thousandths, worth in minor units. */
export interface Counted {
  readonly item: string;
  readonly counted: number;
  readonly expected: number;
  readonly difference: number;
  /** When it was counted last. */
  readonly stamp: string;
  /** What the difference cost: above nothing for what is missing. */
  readonly lost: number;
  readonly retail: number;
  readonly isAccepted: boolean;
}

export interface CountFacts {
  readonly place: string;
  readonly notes: readonly Note[];
  readonly moves: readonly Move[];
  /** On hand at the place now, by item. */
  readonly onHand: ReadonlyMap<string, number>;
  readonly items: ReadonlyMap<string, Pick<Item, 'cost' | 'price'>>;
  readonly accepted: readonly Accepted[];
}

/** Each item that was counted against what should have been there at the stamp at which it was counted last. */
export function countedOf(facts: CountFacts): readonly Counted[] {
  const { place, notes, onHand, items } = facts;
  const found = new Map<string, { counted: number; stamp: string }>();
  for (const { item, quantity, stamp } of notes) {
    const so = found.get(item);
    found.set(item, {
      counted: (so?.counted ?? 0) + quantity,
      stamp: so === undefined || stamp > so.stamp ? stamp : so.stamp,
    });
  }
  const moves = byItem(facts.moves);
  const accepted = new Map(facts.accepted.map((each) => [each.item, each]));
  return [...found].map(([item, { counted, stamp }]) => {
    const now = onHand.get(item) ?? 0;
    const expected = onHandAt(now, moves.get(item) ?? [], place, item, stamp);
    const missing = expected - counted;
    const { cost = null, price = 0 } = items.get(item) ?? {};
    const seen = accepted.get(item);
    return {
      item,
      counted,
      expected,
      difference: counted - expected,
      stamp,
      lost: costOf({ quantity: missing, cost }) ?? 0,
      retail: lineAmount(price, missing),
      isAccepted: seen !== undefined && seen.stamp === stamp && seen.counted === counted,
    };
  });
}

function byItem(moves: readonly Move[]): ReadonlyMap<string, Move[]> {
  const found = new Map<string, Move[]>();
  for (const move of moves) {
    const of = found.get(move.item) ?? [];
    of.push(move);
    found.set(move.item, of);
  }
  return found;
}

/** Goods of the place that nobody counted: they stay as they are, and say so. */
export function notCounted(
  onHand: ReadonlyMap<string, number>,
  notes: readonly Note[],
  isMeant: (item: string) => boolean,
): readonly string[] {
  const counted = new Set(notes.map(({ item }) => item));
  return [...onHand]
    .filter(([item, quantity]) => quantity !== 0 && !counted.has(item) && isMeant(item))
    .map(([item]) => item);
}

export interface AcceptCount {
  readonly newId: () => string;
  readonly count: Count;
  readonly counted: readonly Counted[];
  /** Only these items; all that are not accepted yet, where it is missing. */
  readonly only?: ReadonlySet<string> | undefined;
  readonly reason: string;
}

/** What was counted is what is there, item by item or all at once. What ties up is accepted with it. */
export function acceptCount(command: AcceptCount): CountOutcome {
  const { newId, count, only } = command;
  if (isEnded(count)) return refuse({ code: 'count/ended' });
  const goods = command.counted.filter(
    ({ item, isAccepted }) => !isAccepted && (only?.has(item) ?? true),
  );
  if (goods.length === 0) return refuse({ code: 'count/nothing' });
  const reason = command.reason.trim().slice(0, 200);
  if (reason === '' && goods.some(({ difference }) => difference !== 0))
    return refuse({ code: 'count/no-reason' });
  const drafts: Draft[] = [];
  for (let at = 0; at < goods.length; at += 300)
    drafts.push(
      draft('count.accepted', newId(), count.event, {
        count: count.id,
        place: count.place,
        goods: goods
          .slice(at, at + 300)
          .map(({ item, counted, expected, stamp, lost, retail }) => ({
            ...{ item, counted, expected, stamp, lost, retail },
          })),
        reason,
      }),
    );
  return { ok: true, id: count.id, drafts };
}

export const endCount = (
  newId: () => string,
  count: Count,
  how: 'done' | 'off' | 'open',
): CountOutcome => ({
  ok: true,
  id: count.id,
  drafts: [draft('count.ended', newId(), count.event, { count: count.id, how })],
});

/** What was accepted and would be another figure now: something written before it was counted came in later. */
export interface LateEntry {
  readonly accepted: Accepted;
  /** What should have been there, as is known now. */
  readonly expected: number;
  /** What is to be put back, so that the books say what was counted. Thousandths. */
  readonly by: number;
}

/**
 * @param isMoves Those of items that were accepted, all of them since the earliest stamp.
 */
export function lateEntries(
  accepted: readonly Accepted[],
  moves: readonly Move[],
  onHand: (place: string, item: string) => number,
): readonly LateEntry[] {
  const of = byItem(moves);
  return accepted.flatMap((each) => {
    const { place, item, stamp } = each;
    const then = onHandAt(onHand(place, item), of.get(item) ?? [], place, item, stamp);
    const by = each.expected - then;
    return by === 0 ? [] : [{ accepted: each, expected: then, by }];
  });
}
