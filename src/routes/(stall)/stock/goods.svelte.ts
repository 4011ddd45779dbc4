/** Goods as the screens of stock see them: items, where they can be, how much is there, what lists keep back. */
import type { Row } from '$lib/core/books/tables';
import { isRecent, recentSince } from '$lib/core/event/recent';
import { isKnown } from '$lib/core/event/todays-event';
import type { OrderNow } from '$lib/core/order/order-state';
import { keptBack } from '$lib/core/stock/kept-back';
import { linesNow, type Kept, type LineNow, type WholeList } from '$lib/core/stock/list-state';
import { allOrders } from '$lib/device/orders';
import { underKey } from '$lib/device/under-key';
import { placeName, type NamedPlaces } from '$lib/core/stock/place-name';
import { allPlaces } from '$lib/core/stock/places';
import { itemName, nameAmong } from '$lib/core/goods/item-name';
import { live, type Live } from '$lib/device/live.svelte';
import { useStall, type Stall } from '../stall.svelte';

/** To be made while a component is; each part is read only once it is asked for by the component that makes it. */
export class Goods {
  readonly #items: Live<Row<'items'>[]>;
  readonly #supplies: Live<Row<'supplies'>[]>;
  readonly #places: Live<Row<'places'>[]>;
  readonly #suppliers: Live<Row<'suppliers'>[]>;
  readonly #lists: Live<readonly WholeList[]>;
  readonly #orders: Live<readonly OrderNow[]>;

  constructor(readonly stall: Stall = useStall()) {
    const { db } = stall;
    const { books } = db;
    this.#items = live(() => () => books.items.toArray(), []);
    this.#supplies = live(() => () => books.supplies.toArray(), []);
    this.#places = live(() => () => books.places.toArray(), []);
    this.#suppliers = live(() => () => books.suppliers.toArray(), []);
    this.#orders = live(() => {
      const { today } = stall;
      return () => allOrders(db, today);
    }, []);
    this.#lists = live(
      () => async () => {
        const lists = (await books.lists.toArray()).filter(isKnown);
        const open = lists.filter(({ stage }) => stage !== 'done' && stage !== 'off');
        const ids = open.map(({ id }) => id);
        // A question for each: one for several at once walks over the rows one by one.
        const linesOf = new Map(
          await Promise.all(ids.map(async (id) => [id, await linesOfList(stall, id)] as const)),
        );
        return lists.map((list) => ({ list, lines: linesOf.get(list.id) ?? [] }));
      },
      [],
    );
  }

  get isRead(): boolean {
    const { isRead } = this.#orders;
    return isRead && this.#items.isRead && this.#places.isRead && this.#lists.isRead;
  }
  /** Goods and places have their names; what lists keep back may not have been read. */
  get isNamed(): boolean {
    const areItems = this.#items.isRead;
    return this.#places.isRead && areItems;
  }
  readonly items: ReadonlyMap<string, Row<'items'>> = $derived.by(
    () => new Map(this.#items.value.filter(isKnown).map((item) => [item.id, item])),
  );
  /** What is counted and still sold, by name. */
  readonly stocked: readonly Row<'items'>[] = $derived.by(() =>
    [...this.items.values()]
      .filter(({ isActive, isStocked, choices }) => isActive && isStocked && choices.length === 0)
      .toSorted((a, b) => (itemName(a) < itemName(b) ? -1 : 1)),
  );
  readonly supplies: ReadonlyMap<string, Row<'supplies'>> = $derived.by(
    () => new Map(this.#supplies.value.map((row) => [row.id, row])),
  );
  readonly places: readonly Row<'places'>[] = $derived.by(() => allPlaces(this.#places.value));
  readonly suppliers: readonly Row<'suppliers'>[] = $derived.by(() =>
    this.#suppliers.value.filter(isKnown).toSorted((a, b) => (a.name < b.name ? -1 : 1)),
  );
  /** Orders of customers. */
  get orders(): readonly OrderNow[] {
    return this.#orders.value;
  }
  /** Every list; those that have ended without their lines. */
  get lists(): readonly WholeList[] {
    return this.#lists.value;
  }
  /** What lists keep back, and orders of customers. */
  readonly kept: ReadonlyMap<string, Kept> = $derived.by(() => keptBack(this.lists, this.orders));

  nameOf = (item: string): string => nameAmong(this.items, item);
  unitOf = (item: string): string => this.items.get(item)?.unit ?? '';

  /** A place as people call it. */
  placeName = (place: string, supplier: string | null = null): string =>
    placeName(place, this.named, supplier);
  get named(): NamedPlaces {
    return { places: this.places, suppliers: this.suppliers, events: this.stall.events };
  }

  /** An area with the place that it is in. */
  placePath = (place: Row<'places'>): string => {
    const within = this.places.find(({ id }) => id === place.within);
    const name = this.placeName(place.id);
    return within === undefined ? name : `${this.placePath(within)}, ${name}`;
  };
  /** Places that goods can be at now, events that are not over among them. */
  get choices(): readonly { readonly value: string; readonly label: string }[] {
    const own = this.places
      .filter(({ isActive }) => isActive)
      .map((place) => ({ value: place.id, label: this.placePath(place) }));
    return [...own, ...this.events];
  }
  /** Events that goods can be taken to, or still come back from. */
  get events(): readonly { readonly value: string; readonly label: string }[] {
    const since = recentSince(Date.now());
    const near = this.stall.events.filter((event) => isRecent(event, since));
    return near
      .toSorted((a, b) => ((a.days[0]?.date ?? '') < (b.days[0]?.date ?? '') ? -1 : 1))
      .map(({ id, name, days }) => ({ value: id, label: `${name}, ${days[0]?.date ?? ''}` }));
  }
}

/** A list as the rows have it now, with its lines: what a command decides by. */
export async function wholeList(stall: Stall, list: Row<'lists'>): Promise<WholeList> {
  const { db } = stall;
  const [now, lines] = await Promise.all([
    db.books.lists.get(list.id),
    linesOfList(stall, list.id),
  ]);
  return { list: now ?? list, lines };
}

async function linesOfList({ db }: Stall, list: string): Promise<readonly LineNow[]> {
  const { listLines, listSums } = db.books;
  const [lines, sums] = await Promise.all([
    listLines.where('list').equals(list).toArray(),
    underKey(listSums, list).toArray(),
  ]);
  return linesNow(lines, sums);
}

/** How much of everything is at a place, by item; thousandths. */
export function stockAt(
  stall: Stall,
  place: () => string | null,
): Live<ReadonlyMap<string, number>> {
  const { books } = stall.db;
  return live(() => {
    const wanted = place();
    return async () =>
      new Map(
        wanted === null
          ? []
          : (await underKey(books.stock, wanted).toArray()).map((row) => [row.item, row.quantity]),
      );
  }, new Map());
}
