/** Orders that nobody came for, and those of which more was handed over than there was. */
import type { Row } from '../books/tables';
import { isCounted } from '../event/stage';
import { lastDay } from '../event/todays-event';
import { isOpen, type OrderNow } from '../order/order-state';

export interface OrderEnd {
  readonly looseEnd: string;
  readonly now: OrderNow;
  /** Its last day is over; the event where it was to be collected is; it was handed over twice. */
  readonly why: 'day' | 'event' | 'twice';
}

/**
 * By the order and what was agreed: with another day, or another event, it is another one.
 * @param today The local day, ISO 8601.
 */
export function orderEnds(
  orders: readonly OrderNow[],
  events: readonly Row<'events'>[],
  settlements: readonly Pick<Row<'settlements'>, 'looseEnd'>[],
  today: string,
): readonly OrderEnd[] {
  const settled = new Set(settlements.map(({ looseEnd }) => looseEnd));
  const byId = new Map(events.map((event) => [event.id, event]));
  return orders
    .flatMap((now): OrderEnd[] => {
      const { id, sort, until, collectAt } = now.order;
      if (now.isTwice) return [{ looseEnd: `handed:${id}`, now, why: 'twice' }];
      if (sort === 'quote' || !isOpen(now)) return [];
      if (until !== '' && until < today)
        return [{ looseEnd: `order:${id}-${until}`, now, why: 'day' }];
      const event = collectAt === null ? undefined : byId.get(collectAt);
      return event !== undefined && isOver(event, today)
        ? [{ looseEnd: uncollectedName(id, event.id), now, why: 'event' }]
        : [];
    })
    .filter(({ looseEnd }) => !settled.has(looseEnd));
}

/** Of an order that was not collected at an event. */
export const uncollectedName = (order: string, event: string): string => `order:${order}-${event}`;

const isOver = (event: Row<'events'>, today: string): boolean =>
  lastDay(event) < today || isCounted(event);
