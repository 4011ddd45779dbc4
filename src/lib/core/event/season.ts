/** A year of events: where each hangs on the string, and what it still needs. */
import type { Row } from '../books/tables';
import { isOpen, packedOf, shortOf, stateOf, type WholeList } from '../stock/list-state';
import { stageOf } from './stage';
import { byDate, firstDay, lastDay } from './todays-event';

type Event = Row<'events'>;

export interface Pennant {
  readonly event: Event;
  /** How far through the year its first day is, from 0 to 1. */
  readonly at: number;
  readonly is: 'done' | 'now' | 'to come';
  /** Whether there is room for its name: where dates crowd, only some have theirs until they are touched. */
  readonly isNamed: boolean;
}

/** What comes next for an event, in the order in which it happens. */
export type Need = 'pack' | 'open' | 'sell' | 'settle' | 'nothing';

export function needOf(event: Event): Need {
  switch (stageOf(event)) {
    case 'planned':
      return 'pack';
    case 'packed':
      return 'open';
    case 'trading':
      return 'sell';
    case 'counted':
      return 'settle';
    case 'settled':
      return 'nothing';
  }
}

const DAY = 86_400_000;

/** Pennants of a year, the earliest first. @param today ISO date. */
export function seasonOf(events: readonly Event[], year: number, today: string): Pennant[] {
  const begins = Date.UTC(year, 0, 1);
  const long = (Date.UTC(year + 1, 0, 1) - begins) / DAY;
  const all = byDate(events)
    .filter((event) => Number(firstDay(event).slice(0, 4)) === year)
    .reverse()
    .map((event) => {
      const day = (Date.parse(`${firstDay(event)}T00:00:00Z`) - begins) / DAY;
      const isNow = firstDay(event) <= today && lastDay(event) >= today;
      return {
        event,
        at: day / long,
        is: isNow
          ? ('now' as const)
          : lastDay(event) < today
            ? ('done' as const)
            : ('to come' as const),
      };
    });
  const apart = spread(all.map(({ at }) => at));
  const hung = all.map((each, n) => ({ ...each, at: apart[n] ?? each.at }));
  const named = namedOf(hung);
  return hung.map((each) => ({ ...each, isNamed: named.has(each.event.id) }));
}

/** As near to each other as a finger can tell apart, as a part of the year. */
const NEAREST = 0.034;

/** In their order and as near to where they belong as there is room; where there is none, they share it out. */
function spread(at: readonly number[]): readonly number[] {
  const gap = Math.min(NEAREST, 1 / Math.max(1, at.length));
  const found: number[] = [];
  for (const each of at) found.push(Math.max(each, (found.at(-1) ?? -1) + gap));
  // What was pushed past the end of the year goes back, and pushes what is ahead of it.
  for (let n = found.length - 1, most = 1; n >= 0; n -= 1, most -= gap)
    found[n] = Math.min(found[n]!, most);
  return found;
}

/** How much of the year a name is wide. */
const NAME = 0.075;

/** Today's name is there first, then those to come, then those behind us, the latest first. */
function namedOf(all: readonly Omit<Pennant, 'isNamed'>[]): ReadonlySet<string> {
  const order = { now: 0, 'to come': 1, done: 2 };
  const turns = all.toSorted(
    (a, b) => order[a.is] - order[b.is] || (a.is === 'done' ? b.at - a.at : a.at - b.at),
  );
  const taken: number[] = [];
  const named = new Set<string>();
  for (const { event, at } of turns) {
    if (taken.some((other) => Math.abs(other - at) < NAME)) continue;
    taken.push(at);
    named.add(event.id);
  }
  return named;
}

/** Of a crowd, how many spread to each side of the one that is touched. */
const SPREAD = 3;

/**
 * Where a crowd hangs while one of it is touched: that stays, and its neighbours make room for each other's names.
 * @param at Where all hang, the earliest first, each from 0 to 1.
 * @returns Those that spread, by their place in the order; nothing where there is no crowd.
 */
export function spreadFrom(at: readonly number[], touched: number): ReadonlyMap<number, number> {
  const found = new Map([[touched, at[touched] ?? 0]]);
  for (const step of [-1, 1])
    for (let n = touched + step; Math.abs(n - touched) <= SPREAD; n += step) {
      const [here, nearer] = [at[n], at[n - step]];
      if (here === undefined || nearer === undefined || Math.abs(here - nearer) >= NAME) break;
      found.set(n, found.get(n - step)! + step * NAME);
    }
  if (found.size === 1) return new Map();
  const [least, most] = [Math.min(...found.values()), Math.max(...found.values())];
  const back = Math.max(0, -least) - Math.max(0, most - 1);
  return new Map([...found].map(([n, where]) => [n, where + back]));
}

/** What is packed for an event, as its load lists say. Quantities in thousandths. */
export interface Packing {
  readonly isMade: boolean;
  readonly isDraft: boolean;
  /** The list that is open, if one is. */
  readonly list: string | null;
  readonly wanted: number;
  readonly packed: number;
  /** Still wanted, and not there to be packed. */
  readonly short: number;
}

/** @param onHand Thousandths of an item at a place. */
export function packingOf(
  event: string,
  lists: readonly WholeList[],
  onHand: (place: string, item: string) => number,
): Packing {
  const own = lists.filter(
    ({ list, lines }) =>
      list.use === 'load' && list.event === event && stateOf(list, lines) !== 'off',
  );
  const sums = { wanted: 0, packed: 0, short: 0 };
  for (const { list, lines } of own)
    for (const line of lines) {
      sums.wanted += line.wanted;
      sums.packed += packedOf(line);
      sums.short += shortOf(line, onHand(list.from, line.item));
    }
  const open = own.find(({ list, lines }) => isOpen(stateOf(list, lines)));
  return {
    isMade: own.length > 0,
    isDraft: open !== undefined && stateOf(open.list, open.lines) === 'draft',
    list: open?.list.id ?? null,
    ...sums,
  };
}

/** The years that have events, and this one, in their order. */
export const yearsOf = (events: readonly Event[], today: string): readonly number[] =>
  [...new Set([...byDate(events).map(firstDay), today].map((day) => Number(day.slice(0, 4))))].sort(
    (a, b) => a - b,
  );

/** What is not behind us yet, or not settled: the nearest first. @param today ISO date. */
export const comingUp = (events: readonly Event[], today: string): Event[] =>
  byDate(events)
    .reverse()
    .filter((event) => lastDay(event) >= today || needOf(event) === 'sell');

/** What is behind us, the latest first. @param today ISO date. */
export const behindUs = (events: readonly Event[], today: string): Event[] =>
  byDate(events).filter((event) => lastDay(event) < today);
