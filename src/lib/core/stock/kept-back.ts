/** What is kept back at each place, by lists of goods and by orders of customers. Thousandths. */
import { restOf } from '../order/agreed';
import { isOpen, type OrderNow } from '../order/order-state';
import { keptByLists, keptKey, stateOf, type Kept, type WholeList } from './list-state';

/**
 * Reserved and on order, by place and item (`keptKey`). An order keeps its goods back where they are; at the event where it
 * is collected, once a load list keeps them back where they come from, or has taken them there.
 */
export function keptBack(
  lists: readonly WholeList[],
  orders: readonly OrderNow[],
): ReadonlyMap<string, Kept> {
  const kept = new Map(keptByLists(lists));
  const loaded = new Set(
    lists
      .filter(
        ({ list, lines }) => list.use === 'load' && !NOT_LOADED.includes(stateOf(list, lines)),
      )
      .map(({ list }) => list.event),
  );
  for (const now of orders) {
    const { place: own, collectAt, lines, sort } = now.order;
    const place = collectAt !== null && loaded.has(collectAt) ? collectAt : own;
    if (place === null || sort === 'quote' || !isOpen(now)) continue;
    for (const line of lines) {
      const rest = restOf(line, now.handed);
      if (line.item === null || !line.isStocked || rest === 0) continue;
      const key = keptKey(place, line.item);
      const { reserved = 0, onOrder = 0 } = kept.get(key) ?? {};
      kept.set(key, { reserved: reserved + rest, onOrder });
    }
  }
  return kept;
}

/** A draft keeps nothing back, and one that was called off no more. */
const NOT_LOADED: readonly string[] = ['draft', 'off'];
