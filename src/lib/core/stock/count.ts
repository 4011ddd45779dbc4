/** Counting stock while selling goes on: what should have been there when it was counted, and what that says. */
import type { Row } from '../books/tables';
import { clockOf } from '../daybook/clock';
import { draft } from '../daybook/kinds';
import { RECENT_DAYS } from '../event/recent';
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
  'id' | 'event' | 'item' | 'counted' | 'expected' | 'stamp' | 'place' | 'count'
>;

export type CountRefusal =
  | { readonly code: 'count/no-place' }
  | { readonly code: 'count/ended' }
  | { readonly code: 'count/nothing' }
  | { readonly code: 'count/no-reason' }
  | { readonly code: 'count/too-old' };
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

/** How long back is looked: less than a device keeps moves for, so that none is missing. Milliseconds. */
const LOOKED_BACK = (RECENT_DAYS - 2) * 86_400_000;

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
  /** What was counted there later has been accepted: this says nothing any more. */
  readonly isSuperseded: boolean;
}

export interface CountFacts {
  readonly place: string;
  readonly notes: readonly Note[];
  readonly moves: readonly Move[];
  /** On hand at the place now, by item. */
  readonly onHand: ReadonlyMap<string, number>;
  readonly items: ReadonlyMap<string, Pick<Item, 'cost' | 'price'>>;
  /** Of all counts of the place. */
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
  const accepted = byItem(facts.accepted);
  return [...found].map(([item, { counted, stamp }]): Counted => {
    const known = accepted.get(item) ?? [];
    const done = known.find((each) => each.stamp === stamp && each.counted === counted);
    const now = onHand.get(item) ?? 0;
    const expected = done?.expected ?? onHandAt(now, moves.get(item) ?? [], place, item, stamp);
    return {
      ...{ item, counted, expected, difference: counted - expected, stamp },
      ...worthOfMissing(expected - counted, items.get(item)),
      isAccepted: done !== undefined,
      isSuperseded: known.some((each) => each.stamp > stamp),
    };
  });
}

/** What is missing, at cost and at the price it sells for; minor units. */
export const worthOfMissing = (
  missing: number,
  { cost, price }: Pick<Item, 'cost' | 'price'> = { cost: null, price: 0 },
) => ({
  lost: costOf({ quantity: missing, cost }) ?? 0,
  retail: lineAmount(price, missing),
});

function byItem<T extends { readonly item: string }>(rows: readonly T[]): ReadonlyMap<string, T[]> {
  const found = new Map<string, T[]>();
  for (const row of rows) {
    const of = found.get(row.item) ?? [];
    of.push(row);
    found.set(row.item, of);
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
  /** Milliseconds since 1970. */
  readonly now: number;
}

/** What was counted is what is there, item by item or all at once. What ties up is accepted with it. */
export function acceptCount(command: AcceptCount): CountOutcome {
  const { newId, count, only } = command;
  if (isEnded(count)) return refuse({ code: 'count/ended' });
  const goods = command.counted.filter(
    ({ item, isAccepted, isSuperseded }) =>
      !isAccepted && !isSuperseded && (only?.has(item) ?? true),
  );
  if (goods.length === 0) return refuse({ code: 'count/nothing' });
  if (goods.some(({ stamp }) => clockOf(stamp).millis < command.now - LOOKED_BACK))
    return refuse({ code: 'count/too-old' });
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

export const endCount = (newId: () => string, count: Count, how: 'done' | 'off'): CountOutcome => ({
  ok: true,
  id: count.id,
  drafts: [draft('count.ended', newId(), count.event, { count: count.id, how })],
});

/** What was accepted last of an item at a place, and the books say otherwise. */
export interface OffAccepted {
  readonly accepted: Accepted;
  /** What is to be added, so that the books say what was counted. Thousandths. */
  readonly by: number;
}

/**
 * Of each item at each place, what was counted last and accepted, against what the books now say was there then.
 * Something written before it was counted was heard of since; or it was accepted on two devices; or what was counted
 * before that was accepted after it.
 * @param moves Those of items that were accepted, all of them since they were counted.
 * @param now Milliseconds since 1970.
 */
export function offAccepted(
  accepted: readonly Accepted[],
  moves: readonly Move[],
  onHand: (place: string, item: string) => number,
  now: number,
): readonly OffAccepted[] {
  const last = new Map<string, Accepted>();
  for (const each of accepted) {
    const key = `${each.place} ${each.item}`;
    const so = last.get(key);
    if (so === undefined || each.stamp > so.stamp) last.set(key, each);
  }
  const of = byItem(moves);
  return [...last.values()].flatMap((each) => {
    const { place, item, stamp, counted } = each;
    if (clockOf(stamp).millis < now - LOOKED_BACK) return [];
    const then = onHandAt(onHand(place, item), of.get(item) ?? [], place, item, stamp);
    return counted === then ? [] : [{ accepted: each, by: counted - then }];
  });
}
