/** What lies on the counter's table: which table is shown, its goods, what is left of them. */
import type { ComponentProps } from 'svelte';
import type { Row } from '$lib/core/books/tables';
import { isKnown } from '$lib/core/event/todays-event';
import { itemAt } from '$lib/core/event/event-prices';
import { priceOn } from '$lib/core/pricing/two-prices';
import { live } from '$lib/device/live.svelte';
import type Tag from '$lib/ui/counter/Tag.svelte';
import { painted } from '$lib/ui/frame/painted';
import type { Stall } from '../stall.svelte';

type LaidOut = Pick<
  ComponentProps<typeof Tag>,
  'item' | 'left' | 'onSlip' | 'width' | 'other' | 'picture'
>;
type Table = Row<'tables'>;

export class OnTable {
  readonly #stall: Stall;
  readonly #tables;
  readonly #items;
  readonly #all;
  readonly #photos;
  readonly #stock;
  #chosen = $state<string | null>(null);
  #isPainted = $state(false);
  /** What the tags say of the slip; the slip itself is painted first. */
  #onSlip = $state.raw<ReadonlyMap<string, number>>(new Map());
  /** What was laid out before: what has not changed stays the same object, so that nothing redraws. */
  #before = new Map<string, LaidOut>();

  constructor(stall: Stall) {
    this.#stall = stall;
    const { books } = stall.db;
    this.#tables = live(() => () => books.tables.toArray(), []);
    this.#items = live(() => {
      const [ids, event] = [this.#ids, stall.event];
      return async () =>
        new Map(
          (await books.items.bulkGet(ids)).flatMap((item) =>
            item ? [[item.id, itemAt(item, event)]] : [],
          ),
        );
    }, new Map<string, Row<'items'>>());
    // All goods are only needed for typing: they are read when the table is on the screen.
    $effect(() => {
      if (!this.#items.isRead) return;
      const timer = setTimeout(() => (this.#isPainted = true), 60);
      return () => clearTimeout(timer);
    });
    this.#all = live<readonly Row<'items'>[] | null>(() => {
      const wanted = this.#isPainted;
      const event = stall.event;
      return async () =>
        wanted ? (await books.items.toArray()).map((item) => itemAt(item, event)) : null;
    }, null);
    this.#photos = live(() => {
      const ids = this.#ids;
      return async () =>
        new Map(
          (await books.photos.bulkGet(ids)).flatMap((row) =>
            row?.picture ? [[row.id, row.picture.data]] : [],
          ),
        );
    }, new Map<string, string>());
    this.#stock = live(() => {
      const keys = this.#stockKeys();
      return async () =>
        new Map(
          (await books.stock.bulkGet(keys)).flatMap((row) =>
            row ? [[row.item, row.quantity]] : [],
          ),
        );
    }, new Map<string, number>());
    $effect(() => {
      void stall.slip.current;
      void painted().then(() => (this.#onSlip = stall.slip.onSlip));
    });
  }

  /** Whether everything that can be sold has been read, laid out or not. */
  get areGoodsRead(): boolean {
    return this.#all.value !== null;
  }

  get isRead(): boolean {
    return this.#tables.isRead;
  }
  /** Every item there is, once the table is on the screen. */
  get all(): readonly Row<'items'>[] {
    return this.#all.value ?? [];
  }
  /** The tables of this place: an event that has tables of its own shows those alone. */
  readonly tables: readonly Table[] = $derived.by(() => {
    const here = this.#stall.event?.id;
    const known = this.#tables.value.filter((table) => isKnown(table) && table.isActive);
    const own = known.filter(({ event }) => event !== null && event === here);
    const shown = own.length > 0 ? own : known.filter(({ event }) => event === null);
    return shown.sort((a, b) => a.sort - b.sort || (a.id < b.id ? -1 : 1));
  });
  readonly table: Table | undefined = $derived.by(
    () => this.tables.find(({ id }) => id === this.#chosen) ?? this.tables[0],
  );
  choose(table: string): void {
    this.#chosen = table;
  }
  /** Shows the table beside the one that is shown, if there is one. */
  turn(by: 1 | -1): void {
    const at = this.tables.findIndex(({ id }) => id === this.table?.id) + by;
    this.#chosen = this.tables[at]?.id ?? this.#chosen;
  }

  readonly laidOut: readonly LaidOut[] = $derived.by(() => {
    const now = (this.table?.goods ?? []).flatMap(({ item: id, width }) => {
      const item = this.#items.value.get(id);
      return item?.isActive === true ? [this.#laid(item, width)] : [];
    });
    this.#before = new Map(now.map((each) => [each.item.id, each]));
    return now;
  });

  #laid(item: Row<'items'>, width: number): LaidOut {
    const { id } = item;
    // What has variants is as many as they are together.
    const ids = item.choices.length === 0 ? [id] : (this.#variants.get(id) ?? []);
    const sum = (of: ReadonlyMap<string, number>): number =>
      ids.reduce((all, each) => all + (of.get(each) ?? 0), 0);
    const left = item.isStocked && ids.length > 0 ? sum(this.#stock.value) : null;
    const onSlip = sum(this.#onSlip);
    const picture = this.#photos.value.get(id) ?? null;
    const other = this.#otherPriceOf(item);
    const was = this.#before.get(id);
    const isSame =
      was?.item === item &&
      was.left === left &&
      was.onSlip === onSlip &&
      was.width === width &&
      was.picture === picture &&
      was.other?.price === other?.price;
    return isSame ? was : { item, left, onSlip, width, other, picture };
  }

  readonly #ids: string[] = $derived.by(() => (this.table?.goods ?? []).map(({ item }) => item));

  readonly #variants: ReadonlyMap<string, readonly string[]> = $derived.by(() => {
    const byItem = new Map<string, string[]>();
    for (const { id, variantOf, isActive } of this.all) {
      if (variantOf === null || !isActive) continue;
      byItem.set(variantOf, [...(byItem.get(variantOf) ?? []), id]);
    }
    return byItem;
  });

  #stockKeys(): [string, string][] {
    const place = this.#stall.event?.id;
    if (place === undefined) return [];
    return this.#ids.flatMap((item) =>
      [item, ...(this.#variants.get(item) ?? [])].map((id): [string, string] => [place, id]),
    );
  }

  /** The price that was not typed, where there are two. */
  #otherPriceOf(item: Row<'items'>): LaidOut['other'] {
    const { typedSide, uplift } = this.#stall.business;
    if (uplift === '0' && item.otherPrice === null) return null;
    const side = typedSide === 'card' ? 'cash' : 'card';
    const prices = { typedSide, uplift };
    return { side, price: priceOn(side, item.price, prices, item.otherPrice ?? undefined) };
  }
}
