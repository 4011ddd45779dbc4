/** Doing what a list says: packing, sending, receiving, moving at once, and saying what became of the rest. */
import { goneTo, onTheWay, SUPPLIERS } from '../books/names';
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft, type BodyOf } from '../daybook/kinds';
import type { Stage } from '../daybook/kinds/event-stage';
import type { Gone } from '../daybook/kinds/stock-moved';
import { costOf } from '../sale/cost';
import {
  isInTwoSteps,
  isOpen,
  stateOf,
  toPack,
  toSend,
  underWay,
  type LineNow,
} from './list-state';
import type { ListOutcome, ListRefusal } from './set-list';

type List = Row<'lists'>;
type Costs = ReadonlyMap<string, Pick<Row<'items'>, 'cost'>>;
const refuse = (refusal: ListRefusal): ListOutcome => ({ ok: false, refusal });

/** As many as one entry carries: it has a largest size. */
const MOST_GOODS = 500;

export interface Much {
  readonly item: string;
  /** Thousandths. */
  readonly quantity: number;
}

/** Why nothing can be done for it now, or null. */
function whyClosed(list: List, lines: readonly LineNow[]): ListOutcome | null {
  const state = stateOf(list, lines);
  if (state === 'draft') return refuse({ code: 'list/not-approved' });
  return isOpen(state) ? null : refuse({ code: 'list/ended' });
}

/** Puts goods in, or takes some out again; never more out than is in and has not left. */
export function pack(
  newId: () => string,
  list: List,
  lines: readonly LineNow[],
  goods: readonly Much[],
): ListOutcome {
  const closed = whyClosed(list, lines);
  if (closed !== null) return closed;
  const now = new Map(lines.map((line) => [line.item, line]));
  const put = goods
    .map(({ item, quantity }) => {
      const line = now.get(item);
      const least = line === undefined ? 0 : -toSend(line);
      return { item, quantity: Math.max(quantity, least) };
    })
    .filter(({ quantity }) => quantity !== 0);
  if (put.length === 0) return refuse({ code: 'list/nothing-packed' });
  const body = { list: list.id, goods: put };
  return { ok: true, id: list.id, drafts: [draft('list.packed', newId(), list.event, body)] };
}

/** What an item of a list would be packed by, at one tap: as much as is still wanted of goods that are weighed. */
export const oneMore = (line: LineNow | undefined, { decimals }: Pick<Row<'items'>, 'decimals'>) =>
  decimals === 0 || line === undefined ? 1000 : toPack(line) || 1000;

/**
 * Moves what was packed: all at once, or, where one sends and another receives, onto the way.
 * @param costs What goods cost, for those that go back to a supplier and are owed for.
 */
export function movePacked(
  newId: () => string,
  list: List,
  lines: readonly LineNow[],
  costs: Costs,
): ListOutcome {
  const closed = whyClosed(list, lines);
  if (closed !== null) return closed;
  const packed = lines
    .map((line) => ({ price: line.price, item: line.item, quantity: toSend(line) }))
    .filter(({ quantity }) => quantity > 0);
  if (packed.length === 0) return refuse({ code: 'list/nothing-packed' });
  const isBack = list.to === SUPPLIERS;
  const goods = packed.map(({ price, ...much }) => ({
    ...much,
    ...(isBack ? { amount: worthOf(much, costs, price) } : {}),
  }));
  const isSent = isInTwoSteps(list);
  return moves(newId, list, goods, {
    reason: isSent ? 'sent' : REASONS[list.use],
    from: list.from,
    to: isSent ? onTheWay(list.id) : list.to,
    does: isSent ? 'send' : 'move',
    note: '',
  });
}

/** What loading its list says of an event that was only planned: it is packed. */
export const nowPacked = (
  newId: () => string,
  { use, event }: Pick<List, 'use' | 'event'>,
  stage: Stage | undefined,
): readonly Draft[] =>
  use === 'load' && event !== null && stage === 'planned'
    ? [draft('event.stage', newId(), event, { event, stage: 'packed' })]
    : [];

const REASONS = {
  load: 'loaded',
  unload: 'brought back',
  transfer: 'moved',
  order: 'delivered',
  back: 'sent back',
} as const;

/** What was agreed for them, or what they cost. Minor units. */
const worthOf = ({ item, quantity }: Much, costs: Costs, agreed: number | null = null): number =>
  costOf({ quantity, cost: agreed ?? costs.get(item)?.cost ?? null }) ?? 0;

export interface Arrived extends Much {
  /** What the note asks for all of it, in minor units; null where it follows from the price. */
  readonly amount: number | null;
}

export interface Receive {
  readonly newId: () => string;
  readonly list: List;
  readonly lines: readonly LineNow[];
  readonly goods: readonly Arrived[];
  readonly costs: Costs;
  readonly note: string;
  /** Somebody has seen that more came than was wanted. */
  readonly isMoreMeant: boolean;
}

/** What came: of an order at the price on the note, of what was sent from the way. */
export function receive(command: Receive): ListOutcome {
  const { newId, list, lines, costs, isMoreMeant } = command;
  const closed = whyClosed(list, lines);
  if (closed !== null) return closed;
  const came = command.goods.filter(({ quantity }) => quantity > 0);
  if (came.length === 0) return refuse({ code: 'list/nothing-chosen' });
  const now = new Map(lines.map((line) => [line.item, line]));
  const isSent = isInTwoSteps(list);
  const most = (line: LineNow | undefined): number => {
    if (line === undefined) return 0;
    return isSent ? underWay(line) : line.wanted - line.received;
  };
  const over = came.find(({ item, quantity }) => quantity > most(now.get(item)));
  if (over !== undefined && !isMoreMeant)
    return refuse({
      code: 'list/more-than-wanted',
      item: over.item,
      wanted: Math.max(0, most(now.get(over.item))),
      found: over.quantity,
    });
  const fromSupplier = list.from === SUPPLIERS;
  const goods = came.map(({ amount, ...much }) => ({
    ...much,
    ...(fromSupplier ? { amount: amount ?? worthOf(much, costs, now.get(much.item)?.price) } : {}),
  }));
  return moves(newId, list, goods, {
    reason: fromSupplier ? 'delivered' : 'received',
    from: isSent ? onTheWay(list.id) : list.from,
    to: list.to,
    does: isSent ? 'receive' : 'move',
    note: command.note,
  });
}

/** What has not arrived is gone, for a reason, or never left: it is back where it was sent from. */
export function settleWay(
  newId: () => string,
  list: List,
  lines: readonly LineNow[],
  became: Gone | 'never left',
  costs: Costs,
): ListOutcome {
  const goods = lines
    .map((line) => ({ item: line.item, quantity: underWay(line) }))
    .filter(({ quantity }) => quantity > 0);
  if (goods.length === 0) return refuse({ code: 'list/nothing-chosen' });
  const isGone = became !== 'never left';
  const priced = goods.map((each) => ({
    ...each,
    ...(isGone ? { amount: worthOf(each, costs) } : {}),
  }));
  return moves(newId, list, priced, {
    reason: isGone ? became : 'put right',
    from: onTheWay(list.id),
    to: isGone ? goneTo(became) : list.from,
    does: 'receive',
    note: '',
  });
}

export interface GoodsGone {
  readonly newId: () => string;
  readonly event: string | null;
  readonly place: string;
  readonly goods: readonly Much[];
  readonly why: Gone;
  readonly costs: Costs;
  readonly note: string;
  /** The list that they are missing from, if any: it waits for them no more. */
  readonly list?: string | undefined;
}

/** Goods that are gone from a place, at what they cost. */
export function goodsGone(command: GoodsGone): readonly Draft[] {
  const { newId, event, place, why, costs, note, list } = command;
  const goods = command.goods.map((each) => ({ ...each, amount: worthOf(each, costs) }));
  return inParts(goods).map((some) =>
    draft('stock.moved', newId(), event, {
      reason: why,
      from: place,
      to: goneTo(why),
      goods: some,
      note: note.slice(0, 500),
      ...(list === undefined ? {} : { list: { id: list, does: 'receive' as const } }),
    }),
  );
}

/** What is still where a list takes from and is not packed: of an unload list, what does not come back so far. */
export function restOf(
  there: ReadonlyMap<string, number>,
  lines: readonly LineNow[],
): readonly Much[] {
  const packed = new Map(lines.map((line) => [line.item, toSend(line)]));
  return [...there]
    .map(([item, quantity]) => ({ item, quantity: quantity - (packed.get(item) ?? 0) }))
    .filter(({ quantity }) => quantity > 0);
}

export interface RestGone {
  readonly newId: () => string;
  readonly list: Pick<List, 'id' | 'event' | 'from'>;
  /** What somebody saw to be left, and says is gone. */
  readonly goods: readonly Much[];
  /** How much is there by now, by item: what somebody has counted back meanwhile is not gone. */
  readonly there: ReadonlyMap<string, number>;
  readonly why: Gone;
  readonly costs: Costs;
}

/** What does not come back from an event is gone, for a reason. */
export function restGone({ newId, list, goods, there, why, costs }: RestGone): ListOutcome {
  const gone = goods.filter(
    ({ item, quantity }) => quantity > 0 && (there.get(item) ?? 0) >= quantity,
  );
  if (gone.length === 0) return refuse({ code: 'list/nothing-chosen' });
  const { id, event, from: place } = list;
  const said = { newId, event, place, goods: gone, why, costs, note: '', list: id };
  return { ok: true, id, drafts: goodsGone(said) };
}

type Goods = BodyOf<'stock.moved'>['goods'];
interface Move {
  readonly reason: BodyOf<'stock.moved'>['reason'];
  readonly from: string;
  readonly to: string;
  readonly does: 'send' | 'receive' | 'move';
  readonly note: string;
}

const moves = (
  newId: () => string,
  { id, event, supplier }: List,
  goods: Goods,
  { reason, from, to, does, note }: Move,
): ListOutcome => ({
  ok: true,
  id,
  drafts: inParts(goods).map((some) =>
    draft('stock.moved', newId(), event, {
      reason,
      from,
      to,
      goods: some,
      note: note.slice(0, 500),
      list: { id, does },
      ...(supplier === null || (from !== SUPPLIERS && to !== SUPPLIERS) ? {} : { supplier }),
    }),
  ),
});

const inParts = <T>(goods: readonly T[]): T[][] => {
  const parts: T[][] = [];
  for (let at = 0; at < goods.length; at += MOST_GOODS)
    parts.push(goods.slice(at, at + MOST_GOODS));
  return parts;
};
